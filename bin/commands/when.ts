import { siteDates } from '@/core/release';
import { DeskError } from '@/desk/desk-error';
import { timeMeant } from '@/desk/release/say-when';
import { SITE_PROFILES } from '@/sites/profiles';
import { zoneHere } from './named/moment';
import { siteNamed } from './named/site';

interface WhenOptions {
  zone?: string;
  now?: string;
  site?: string[];
  json?: boolean;
}

/** The instant that --now names, or the present one. */
function nowSaid(text: string | undefined): Date {
  const now = text === undefined ? new Date() : new Date(text);
  if (!Number.isNaN(now.getTime()) && (text === undefined || /(Z|[+-]\d{2}:\d{2})$/.test(text))) return now;
  throw new DeskError('not taken', `“${text}” is no instant. Write it like 2026-11-26T10:00:00Z.`);
}

/** Prints what a typed time means, and the dates that sites print then; exit 1 where it names no one instant to come. */
export function when(text: string, options: WhenOptions): void {
  const zone = options.zone ?? zoneHere();
  const said = timeMeant(text, zone, nowSaid(options.now));
  const named = options.site?.map(siteNamed) ?? Object.values(SITE_PROFILES);
  const sites = said.instant ? siteDates(new Date(said.instant), said.zone, named) : [];
  if (said.findings.length > 0) process.exitCode = 1;
  if (options.json) {
    const { instant, wall, findings } = said;
    const choices = said.choices.map((choice) => choice.instant);
    process.stdout.write(`${JSON.stringify({ instant, wall, zone: said.zone, sites, choices, findings }, null, 2)}\n`);
    return;
  }
  if (said.instant) process.stdout.write(`${said.wall} in ${said.zone}\n${said.instant}\n`);
  for (const { instant } of said.choices) process.stdout.write(`${instant}\n`);
  for (const { site, date, otherDay } of sites) {
    process.stdout.write(`${site} prints ${date}${otherDay ? ': another day than yours' : ''}\n`);
  }
  for (const finding of said.findings) console.error(finding);
}

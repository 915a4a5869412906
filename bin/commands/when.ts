import { type DateOrder, siteDates, timeSaid } from '@/core/release';
import { DeskError } from '@/desk/desk-error';
import { dateOrder } from '@/desk/release/say-when';
import { SITE_PROFILES } from '@/sites/profiles';
import { zoneHere } from './named/moment';
import { siteNamed } from './named/site';

interface WhenOptions {
  zone?: string;
  order?: string;
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

const ORDERS: Record<string, DateOrder> = { dmy: 'day first', mdy: 'month first' };

/** The order that --order names, or the one that is set; where no database can be asked, none is. */
async function orderSaid(text: string | undefined): Promise<DateOrder> {
  if (text === undefined) return dateOrder().catch(() => 'ask');
  const order = ORDERS[text.toLowerCase()];
  if (!order) throw new DeskError('not taken', `“${text}” is no order. Say dmy or mdy.`);
  return order;
}

/** Prints what a typed time means, and the dates that sites print then; exit 1 where it names no one instant to come. */
export async function when(text: string, options: WhenOptions): Promise<void> {
  const zone = options.zone ?? zoneHere();
  const said = timeSaid(text, nowSaid(options.now), zone, await orderSaid(options.order));
  const named = options.site?.map(siteNamed) ?? Object.values(SITE_PROFILES);
  const sites = said.instant ? siteDates(new Date(said.instant), said.zone, named) : [];
  if (said.findings.length > 0) process.exitCode = 1;
  if (options.json) {
    const { instant, wall, findings } = said;
    const choices = said.choices.map((choice) => choice.instant);
    const meant = said.choices.map(({ says, instant: at, moment }) => ({ says, instant: at, ...moment }));
    const all = { instant, wall, zone: said.zone, which: said.which, sites, choices, findings };
    process.stdout.write(`${JSON.stringify(meant.length > 0 ? { ...all, meant } : all, null, 2)}\n`);
    return;
  }
  if (said.order) process.stdout.write(`Read with the ${said.order}\n`);
  if (said.instant) process.stdout.write(`${said.wall} in ${said.zone}\n${said.instant}\n`);
  for (const { instant, says } of said.choices) process.stdout.write(`${instant}  ${says}\n`);
  for (const { site, date, otherDay } of sites) {
    process.stdout.write(`${site} prints ${date}${otherDay ? ': another day than yours' : ''}\n`);
  }
  for (const finding of said.findings) console.error(finding);
}

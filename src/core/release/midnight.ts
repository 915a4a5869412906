import { Temporal } from 'temporal-polyfill';
import { dayOf } from './in-words';
import { resolved, type SaidChoice, type SaidTime, unsaid } from './said-time';
import { understood } from './understood';

/** A midnight, which is at both ends of a day. */
const MIDNIGHT = /\b(?:midnight|12(?::00)? ?a\.?m\b\.?)/i;
/** The end of a day (ISO 8601-1:2019, 5.3.2). */
const END_OF_DAY = /\b24[:.]00\b/;
const TODAY = /\b(?:today|tonight|this (?:evening|night))\b/gi;

/** A time that is understood, and of midnight the one that is meant. @param typed as it was written */
export function atItsMidnight(text: string, typed: string, now: Date, zone: string): SaidTime {
  const at = (time: string, of: RegExp) => understood(text.replace(of, time), typed, now, zone);
  if (END_OF_DAY.test(text)) return minuteAfter(at('23:59', END_OF_DAY), now);
  if (!MIDNIGHT.test(text)) return understood(text, typed, now, zone);
  const otherwise = text
    .replace(MIDNIGHT, ' ')
    .replace(TODAY, ' ')
    .replace(/\bat\b/gi, ' ');
  if (otherwise.trim() === '') return minuteAfter(understood('today 23:59', typed, now, zone), now);
  const [begins, ends] = [at('0:00', MIDNIGHT), minuteAfter(at('23:59', MIDNIGHT), now)];
  if (!begins.wall || !ends.wall) return begins;
  const nights = [begins, ends].flatMap(({ wall, which, instant, findings }): SaidChoice[] => {
    if (!wall || !instant || findings.length > 0) return [];
    return [{ moment: { wall, zone, ...(which && { which }) }, instant, says: nightBefore(wall) }];
  });
  if (nights.length < 2) return nights[0]?.instant === begins.instant ? begins : ends;
  nights.sort((a, b) => a.instant.localeCompare(b.instant));
  return unsaid(zone, 'Midnight is at both ends of a day. Say which night you mean.', nights);
}

function nightBefore(wall: string): string {
  const day = Temporal.PlainDateTime.from(wall);
  return `The night from ${dayOf(day.subtract({ days: 1 }).toString(), false)} to ${dayOf(wall, false)}`;
}

function minuteAfter(said: SaidTime, now: Date): SaidTime {
  if (!said.wall) return said;
  const { wall, zone } = said;
  return resolved({ wall: Temporal.PlainDateTime.from(wall).add({ minutes: 1 }).toString(), zone }, now);
}

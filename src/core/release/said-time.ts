import { Temporal } from 'temporal-polyfill';
import type { DateOrder } from './date-orders';
import { clock, dayAndTime } from './in-words';
import { instantsOf, jumpOver, type Moment, momentAt } from './moment';

/** One of several times that the same words can mean. */
export interface SaidChoice {
  moment: Moment;
  /** In UTC. */
  instant: string;
  /** What tells it from the others. */
  says: string;
  /** The order of day and month that it takes, where the choice is one of orders. */
  order?: Exclude<DateOrder, 'ask'>;
}

/** What a typed time came to. */
export interface SaidTime {
  /** The time on the wall, where one was understood. */
  wall: string | undefined;
  zone: string;
  /** Which of two it is, where the clocks go back. */
  which?: Moment['which'];
  /** In UTC; undefined where there is none, or several to choose from. */
  instant: string | undefined;
  /** The times that it may be, where it is one of several. */
  choices: SaidChoice[];
  /** What is wrong with it, each in a sentence. */
  findings: string[];
  /** The order of day and month that was taken because it was set so. */
  order?: Exclude<DateOrder, 'ask'>;
}

/** What is not understood, or may be one of several. */
export const unsaid = (zone: string, finding: string, choices: SaidChoice[] = []): SaidTime => {
  return { wall: undefined, zone, instant: undefined, choices, findings: [finding] };
};

export const nowhere = (zone: string): Omit<SaidTime, 'instant' | 'findings'> => ({
  wall: undefined,
  zone,
  choices: [],
});

/** An instant, and what is wrong with it. */
export const came = (instant: Date, now: Date) => ({ instant: plainInstant(instant), findings: over(instant, now) });

/** What an instant comes to, as clocks of a zone show it. */
export function atInstant(instant: Date, now: Date, zone: string): SaidTime {
  const { wall, which } = momentAt(instant, zone);
  const [, second] = instantsOf({ wall, zone });
  return { ...nowhere(zone), wall, ...(second && { which: which ?? 'first' }), ...came(instant, now) };
}

/** What a wall time in a zone comes to. @param now what is before it is over */
export function resolved({ wall, zone, which }: Moment, now: Date): SaidTime {
  const [first, second] = instantsOf({ wall, zone });
  if (!first) {
    const { from, to } = jumpOver({ wall, zone });
    const said = from.slice(0, 10) === to.slice(0, 10) ? clock : dayAndTime;
    const what = `${dayAndTime(wall)} does not exist in ${zone}: the clocks go from ${said(from)} to ${said(to)}.`;
    return { wall, zone, instant: undefined, choices: [], findings: [`${what} Choose a time before or after.`] };
  }
  if (second && !which) {
    const what = `${dayAndTime(wall)} comes twice in ${zone}, as the clocks go back. Say which one you mean.`;
    const choices = [
      { moment: { wall, zone, which: 'first' as const }, instant: first, says: 'Before the clocks go back' },
      { moment: { wall, zone, which: 'second' as const }, instant: second, says: 'After the clocks go back' },
    ];
    return { wall, zone, instant: undefined, choices, findings: [what] };
  }
  const instant = which === 'second' && second ? second : first;
  return { wall, zone, ...(second && { which }), instant, choices: [], findings: over(new Date(instant), now) };
}

const over = (instant: Date, now: Date) => (instant < now ? ['That time is over. Choose one that is to come.'] : []);

/** An instant in UTC, to the second where it has no fraction: 2026-11-28T17:30:00Z. */
export const plainInstant = (instant: Date) => Temporal.Instant.fromEpochMilliseconds(instant.getTime()).toString();

import { type DateOrder, inOrders } from './date-orders';
import { dayOf } from './in-words';
import { onItsClocks } from './its-clocks';
import { atItsMidnight } from './midnight';
import { zoneNamed } from './moment';
import { type SaidChoice, type SaidTime, unsaid } from './said-time';
import { zoneSaid } from './zone-said';

/**
 * Understands a time as people type it: "fri 9:00", "in 2 h", "28 nov 18:30", "2026-11-28 18:30", "fri 9:00 London". A day
 * without a year, a weekday and a time without a day mean the next that comes. Nothing is guessed: a time that does not exist,
 * comes twice, is over, may be one of two days, whose weekday is another, or of which a part was not understood, says so.
 * @param now the instant that "in 2 h" counts from
 * @param zone the IANA zone that it is said in, where the text names none
 * @param order of the numbers of a date such as 12/04, where the manager has said it
 */
export function timeSaid(text: string, now: Date, zone: string, order: DateOrder = 'ask'): SaidTime {
  const known = zoneNamed(zone);
  if (!known) return unsaid(zone, `There is no time zone “${zone}”. Name it by place, such as Europe/Berlin.`);
  if (text.trim() === '') return unsaid(known, 'Say when: a day and a time, such as “fri 9:00”.');
  const said = zoneSaid(text.trim());
  if (said.finding) return unsaid(known, said.finding);
  const { texts, by } = inOrders(said.text, order);
  const inOrder = (each: string) => onItsClocks(atItsMidnight(each, text, now, said.zone ?? known), said, known, now);
  const [one, other] = texts.map(inOrder) as [SaidTime, SaidTime?];
  if (!other) return by ? { ...one, order: by } : one;
  return oneOfOrders(one, other) ?? oneOfDays(texts.map((each) => inOrder(`${each} 12:00`))) ?? one;
}

/** What a date comes to that has the day first or the month first; undefined where neither was understood. */
function oneOfOrders(dayFirst: SaidTime, monthFirst: SaidTime): SaidTime | undefined {
  const both = [
    ['day first', dayFirst],
    ['month first', monthFirst],
  ] as const;
  // A weekday that stands beside it tells the order.
  const fitting = both.filter(([, { wall, choices }]) => wall !== undefined || choices.length > 0);
  const [first, second] = fitting;
  if (!first || !second) return first?.[1];
  const choices = fitting.flatMap(([order, { wall, zone, which, instant, choices: within }]): SaidChoice[] => {
    if (!wall || !instant) return within.map((choice) => ({ ...choice, says: saysDay(choice), order }));
    return [{ moment: { wall, zone, ...(which && { which }) }, instant, says: dayOf(wall), order }];
  });
  const days = fitting.map(
    ([
      ,
      {
        wall,
        choices: [choice],
      },
    ]) => dayOf(wall ?? choice?.moment.wall ?? ''),
  );
  return unsaid(first[1].zone, `That is ${days.join(' or ')}. Say which one you mean.`, choices);
}

const saysDay = ({ moment, says }: SaidChoice) =>
  `${dayOf(moment.wall)}: ${says.charAt(0).toLowerCase()}${says.slice(1)}`;

/** Two days of which one is meant, where the time of day is not said either. */
function oneOfDays(atNoon: readonly SaidTime[]): SaidTime | undefined {
  const days = atNoon.flatMap(({ wall }) => (wall ? [dayOf(wall)] : []));
  const [first] = atNoon;
  if (!first || days.length < atNoon.length) return undefined;
  return unsaid(first.zone, `That is ${days.join(' or ')}. Write the month as a word, and the time: “28 nov 18:30”.`);
}

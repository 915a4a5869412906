import { object, string } from 'yup';
import { type DateOrder, type SaidTime, timeSaid } from '@/core/release';
import { database } from '@/store/database';
import { keepPreference, preference } from '@/store/preferences';
import { settings } from '@/store/settings';

const askedShape = object({
  text: string().max(200, 'A time has at most 200 characters.').default(''),
  zone: string().max(60).required('Say which time zone it is said in.'),
}).noUnknown();

const ORDERS = ['day first', 'month first'] as const;

const orderShape = object({
  order: string().oneOf(ORDERS, 'Say “day first” or “month first”.').required('Say which comes first.'),
}).noUnknown();

/** Which of day and month comes first: as the settings say, or as the manager has answered once; asked for where neither is. */
export async function dateOrder(): Promise<DateOrder> {
  const { dateOrder: set } = settings();
  if (set !== 'ask') return set;
  const kept = await preference(database(), 'date order');
  return ORDERS.find((order) => order === kept) ?? 'ask';
}

/** Keeps which of day and month comes first in the dates that are typed from now on. */
export async function keepDateOrder(input: unknown): Promise<void> {
  const { order } = await orderShape.validate(input, { stripUnknown: false });
  await keepPreference(database(), 'date order', order);
}

/** What a time that somebody types means, as seen now. @param input the text and the IANA zone that it is said in */
export async function sayWhen(input: unknown): Promise<SaidTime> {
  const { text, zone } = await askedShape.validate(input, { stripUnknown: false });
  return timeSaid(text, new Date(), zone, await dateOrder());
}

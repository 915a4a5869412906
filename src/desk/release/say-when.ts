import { object, string } from 'yup';
import { type SaidTime, timeSaid } from '@/core/release';
import { settings } from '@/store/settings';

const askedShape = object({
  text: string().max(200, 'A time has at most 200 characters.').default(''),
  zone: string().max(60).required('Say which time zone it is said in.'),
}).noUnknown();

/** What a typed time means to this manager, with the dates in the order that the settings say. @param now as seen from when */
export const timeMeant = (text: string, zone: string, now = new Date()): SaidTime =>
  timeSaid(text, now, zone, settings().dateOrder);

/** What a time that somebody types means, as seen now. @param input the text and the IANA zone that it is said in */
export async function sayWhen(input: unknown): Promise<SaidTime> {
  const { text, zone } = await askedShape.validate(input, { stripUnknown: false });
  return timeMeant(text, zone);
}

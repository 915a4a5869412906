import { object, string } from 'yup';
import { type SaidTime, timeSaid } from '@/core/release';

const askedShape = object({
  text: string().max(200, 'A time has at most 200 characters.').default(''),
  zone: string().max(60).required('Say which time zone it is said in.'),
}).noUnknown();

/** What a time that somebody types means, as seen now. @param input the text and the IANA zone that it is said in */
export async function sayWhen(input: unknown): Promise<SaidTime> {
  const { text, zone } = await askedShape.validate(input, { stripUnknown: false });
  return timeSaid(text, new Date(), zone);
}

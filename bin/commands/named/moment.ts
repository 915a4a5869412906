import { type Moment, timeSaid } from '@/core/release';
import { DeskError } from '@/desk/desk-error';
import { dateOrder } from '@/desk/release/say-when';

/** The zone of this machine. */
export const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The moment that a typed time means. @throws DeskError where it means none, several, or one that is over */
export async function momentNamed(text: string, zone = zoneHere()): Promise<Moment> {
  const { wall, zone: known, which, choices, findings } = timeSaid(text, new Date(), zone, await dateOrder());
  const [wrong] = findings;
  const both =
    choices.length > 0 ? ` It is ${choices.map(({ instant }) => instant).join(' or ')}: write that, with the Z.` : '';
  if (wrong || !wall) throw new DeskError('not taken', `${wrong}${both}`);
  return { wall, zone: known, ...(which && { which }) };
}

import { type Moment, timeSaid } from '@/core/release';
import { DeskError } from '@/desk/desk-error';

/** The zone of this machine. */
export const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The moment that a typed time means. @throws DeskError where it means none, two, or one that is over */
export function momentNamed(text: string, zone = zoneHere()): Moment {
  const { wall, zone: known, choices, findings } = timeSaid(text, new Date(), zone);
  const [wrong] = findings;
  const both = choices.length > 0 ? ` It is ${choices.join(' or ')}: write that, with the Z.` : '';
  if (wrong || !wall) throw new DeskError('not taken', `${wrong}${both}`);
  return { wall, zone: known };
}

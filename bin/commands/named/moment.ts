import type { Moment } from '@/core/release';
import { DeskError } from '@/desk/desk-error';
import { timeMeant } from '@/desk/release/say-when';

/** The zone of this machine. */
export const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The moment that a typed time means. @throws DeskError where it means none, two, or one that is over */
export function momentNamed(text: string, zone = zoneHere()): Moment {
  const { wall, zone: known, choices, findings } = timeMeant(text, zone);
  const [wrong] = findings;
  const both =
    choices.length > 0 ? ` It is ${choices.map(({ instant }) => instant).join(' or ')}: write that, with the Z.` : '';
  if (wrong || !wall) throw new DeskError('not taken', `${wrong}${both}`);
  return { wall, zone: known };
}

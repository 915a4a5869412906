import { timeIn } from '@/core/release/in-words';
import type { HeldOfAccount } from '@/desk/account/connect';

/**
 * What is said of videos that are held on the channels of an account, before it is disconnected.
 * @param zone in which their times are said
 */
export function heldWords({ first, count }: HeldOfAccount, zone: string): string[] {
  if (count === 0) return [];
  const named = first.map(
    ({ title, channel, opensAt }) =>
      `“${title}” on ${channel}${opensAt ? `, ${timeIn(zone, new Date(opensAt))}` : ', by your word'}`,
  );
  const more = count > first.length ? [`${(count - first.length).toLocaleString('en')} more`] : [];
  const which =
    count === 1 ? 'One video is held there, and does not open' : `${count} videos are held there, and do not open`;
  return [`${which} until you connect again and say so: ${[...named, ...more].join('; ')}.`];
}

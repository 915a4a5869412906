import type { Difference } from '@/core/parts';

const short = (text: string, most: number) =>
  (text.length > most ? `${text.slice(0, most - 3)}…` : text).replace(/\n/g, ' / ');

/** What is told by a digest alone has no words of its own. */
const isDigest = ({ part }: Difference) => part === 'file' || part === 'picture';

/** A difference in what was given just now, as a colleague would say it. */
export function differenceWords(site: string, difference: Difference): string {
  const { field, meant, shown } = difference;
  if (isDigest(difference)) return `The ${field} on ${site} is not the one that was sent`;
  const [are, they] = field.endsWith('s') ? ['are', 'they'] : ['is', 'it'];
  return `The ${field} on ${site} ${are} “${short(shown, 80)}”; ${they} should be “${short(meant, 80)}”`;
}

/** A difference that somebody has made at the site since. */
export function theirChangeWords(site: string, difference: Difference): string {
  const { field, meant, shown } = difference;
  if (isDigest(difference)) return `Changed on ${site}: the ${field} is another one`;
  return `Changed on ${site}: ${field} is “${short(shown, 120)}”; it was “${short(meant, 120)}”`;
}

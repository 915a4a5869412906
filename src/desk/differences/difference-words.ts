import type { Difference } from '@/core/parts';

const short = (text: string) => (text.length > 80 ? `${text.slice(0, 77)}…` : text).replace(/\n/g, ' / ');

/** A difference in what was given, as a colleague would say it. What is told by a digest alone has no words of its own. */
export function differenceWords(site: string, { part, field, meant, shown }: Difference): string {
  if (part === 'file' || part === 'picture') return `The ${field} on ${site} is not the one that was sent`;
  const [are, they] = field.endsWith('s') ? ['are', 'they'] : ['is', 'it'];
  return `The ${field} on ${site} ${are} “${short(shown)}”; ${they} should be “${short(meant)}”`;
}

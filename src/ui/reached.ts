import type { Reached } from '@/desk/changes/reach';

const MOST_NAMED = 3;

/** Which videos a change of defaults reaches, in words. @param but a video that goes without saying */
export function reachedWords(reached: readonly Reached[], but?: string): string {
  const others = reached.filter(({ videoId }) => videoId !== but);
  if (others.length === 0)
    return `Saved. ${but ? 'No other' : 'No'} unsent video changes by it, and nothing that was sent.`;
  const named = others.slice(0, MOST_NAMED).map(({ title }) => `“${title}”`);
  if (others.length > MOST_NAMED) named.push(`${others.length - MOST_NAMED} more`);
  const fields = [...new Set(others.flatMap((each) => each.fields))];
  const list = (all: string[]) => new Intl.ListFormat('en').format(all);
  return `Saved. It changes ${list(fields)} of ${list(named)}; nothing that was sent.`;
}

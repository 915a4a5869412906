import type { CalendarEntry } from '@/desk/views/views';
import { dropStateWords } from '@/ui/drop-words';

const SINCE = { closed: 'closed since', removed: 'removed since' } as const;

type Entry = Pick<CalendarEntry, 'state' | 'since'> & { channel: Pick<CalendarEntry['channel'], 'name'> };

const namesOf = (entries: readonly Entry[]) =>
  new Intl.ListFormat('en').format(entries.map(({ channel }) => channel.name));

/** How one stands on a channel, in small letters. */
const stateOf = ({ state, since }: Entry): string => (since ? SINCE[since] : dropStateWords(state).toLowerCase());

/**
 * Where a video opens or has opened, and how it stands there. Where it does not stand everywhere alike since it went out, each
 * state has its own channels.
 */
export function whereWords(entries: readonly Entry[]): { where: string; stands: string } {
  const states = [...new Set(entries.map(stateOf))];
  if (states.length < 2 || entries.every(({ since }) => !since)) {
    return { where: namesOf(entries), stands: states.join(', ') };
  }
  const apart = states.map((state) => `${state} on ${namesOf(entries.filter((entry) => stateOf(entry) === state))}`);
  return { where: '', stands: apart.join(' · ') };
}

import { spanName } from '@/core/delivery';
import { isOpenTo, isWorking, OPEN_TO, openEnd, STATE_WORDS } from '@/core/drop';
// Not by the index: that would bring the rules of calendars along.
import { timeIn } from '@/core/release/in-words';
import type { DropView } from '@/desk/views/views';

const OPENED_WORDS = { link: 'by link', password: 'with a password', private: 'private' } as const;

/** How a live video stands, by whom it is shown to. */
function liveWords({
  openedTo,
  otherFile,
  changedThere,
  notTaken,
  matched,
  giving,
}: Pick<DropView, 'openedTo' | 'otherFile' | 'changedThere' | 'notTaken' | 'matched' | 'giving'>): string {
  const to = openedTo && openedTo !== 'everyone' ? ` · ${OPENED_WORDS[openedTo]}` : '';
  if (matched) return `${STATE_WORDS.live}${to} · a rights match needs you`;
  if (giving)
    return `${STATE_WORDS.live}${to} · ${giving.trouble ? 'changes wait for the site' : 'changes on their way'}`;
  const amiss = [
    otherFile && 'shows the earlier file',
    changedThere.length > 0 && `changed there: ${changedThere.join(', ')}`,
    notTaken.length > 0 && `not taken there: ${notTaken.join(', ')}`,
  ].find(Boolean);
  return `${STATE_WORDS.live}${to} · ${amiss || 'checked'}`;
}

/** How a state is called where there is no room for more. */
export const dropStateWords = (state: DropView['state']): string =>
  state === 'snag' ? 'Needs you' : STATE_WORDS[state];

/**
 * Where a drop stands, in one short line.
 * @param zone in which the time is said at which it opens; pages take the manager's from `useZone`
 */
export function dropWords(drop: DropView, zone: string): string {
  if (drop.snag) return drop.snag.what;
  const { state, progress, opensAt } = drop;
  // Until the site has said that it is so, whatever keeps it from that.
  if (state === 'closing' && isOpenTo(drop.openedTo)) {
    const still = `${STATE_WORDS.closing} · still open ${OPEN_TO[openEnd(drop.openedTo ?? 'private')]}`;
    return drop.waiting ? `${still}: ${drop.waiting}` : still;
  }
  if (drop.waiting) return drop.waiting;
  if (state === 'held' && opensAt)
    return drop.onWord ? 'Opens in a moment' : `Opens ${timeIn(zone, new Date(opensAt))}`;
  if (state === 'live') return liveWords(drop);
  // One with a snag says what it is, above.
  const name = state === 'snag' ? '' : STATE_WORDS[state];
  if (!progress || !isWorking(state)) return name;
  const left = progress.secondsLeft === undefined ? '' : ` · ${spanName(progress.secondsLeft)} left`;
  if (state !== 'landing') {
    const share = progress.fraction === undefined ? '' : ` ${Math.floor(progress.fraction * 100)} %`;
    return `${name}: ${progress.says}${share}${left}`;
  }
  return progress.fraction === undefined ? `${name}: ${progress.says}` : `${name} ${progress.says}${left}`;
}

/** What is said of a drop that its site puts off for longer than it should. @param minutes for how long */
export function overdueWords(minutes: number): string {
  if (minutes === 0) return 'It should be open by now. It goes on trying; look whether the site is well.';
  return `It has been put off for ${spanName(minutes * 60)}. It goes on trying; look whether the site is well.`;
}

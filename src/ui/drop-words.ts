import { spanName } from '@/core/delivery';
import type { DropView } from '@/desk/look/views';

const MOVING: Partial<Record<DropView['state'], string>> = {
  packing: 'Packing',
  landing: 'Landing',
  settling: 'Settling',
  clearing: 'Clearing',
  proofing: 'Proofing',
  opening: 'Opening',
  closing: 'Closing',
  removing: 'Being removed',
};

/** How a live video stands, by whom it is shown to. */
function liveWords({ openedTo, otherFile }: Pick<DropView, 'openedTo' | 'otherFile'>): string {
  const to = openedTo === 'link' ? ' · by link' : openedTo === 'private' ? ' · private' : '';
  return `Live${to} · ${otherFile ? 'shows the earlier file' : 'checked'}`;
}

/** Where a drop stands, in one short line. */
export function dropWords(drop: DropView): string {
  if (drop.snag) return drop.snag.what;
  if (drop.waiting) return drop.waiting;
  switch (drop.state) {
    case 'draft':
      return 'Not sent yet';
    case 'held':
      return 'Ready to open';
    case 'live':
      return liveWords(drop);
    case 'removed':
      return 'Removed from the site';
    default: {
      const { progress } = drop;
      const name = MOVING[drop.state] ?? drop.state;
      if (!progress) return name;
      if (drop.state !== 'landing') {
        const share = progress.fraction === undefined ? '' : ` ${Math.floor(progress.fraction * 100)} %`;
        return `${name}: ${progress.says}${share}`;
      }
      const left = progress.secondsLeft === undefined ? '' : ` · ${spanName(progress.secondsLeft)} left`;
      return progress.fraction === undefined ? `${name}: ${progress.says}` : `${name} ${progress.says}${left}`;
    }
  }
}

/** What is said of a drop that its site puts off for longer than it should. @param minutes for how long */
export function overdueWords(minutes: number): string {
  return `It has been put off for ${spanName(minutes * 60)}. It goes on trying; look whether the site is well.`;
}

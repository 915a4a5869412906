import { spanName } from '@/core/delivery';
import type { DropView } from '@/desk/views';

const MOVING: Partial<Record<DropView['state'], string>> = {
  packing: 'Packing',
  landing: 'Landing',
  settling: 'Settling',
  clearing: 'Clearing',
  proofing: 'Proofing',
  opening: 'Opening',
  removing: 'Being removed',
};

/** Where a drop stands, in one short line. */
export function dropWords(drop: DropView): string {
  if (drop.snag) return drop.snag.what;
  if (drop.waiting) return drop.waiting;
  switch (drop.state) {
    case 'draft':
      return 'Not sent yet';
    case 'held':
      return 'Waits for your word';
    case 'live':
      return drop.liveAt ? 'Live · proofed' : 'Live';
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

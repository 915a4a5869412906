import { lineRate, spanName } from '@/core/delivery';
import type { BoardCounts } from '@/desk/views/views';
import type { Arrival } from '@/ui/arrivals/arrivals';

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'];

/** What the Board says first: how many of all videos need a person. */
export function headline(count: number): string {
  if (count === 0) return 'Nothing needs you';
  const number = NUMBERS[count] ?? count.toLocaleString('en');
  return count === 1 ? `${number} video needs you` : `${number} videos need you`;
}

/** How fast what moves is, and until when. */
export function underline(moving: BoardCounts['moving'], arrivals: readonly Arrival[]): string {
  const { bytesPerSecond, secondsLeft } = moving;
  const says = [
    arrivals.length > 0 && `${arrivals.length} arriving`,
    bytesPerSecond > 0 && `line ${lineRate(bytesPerSecond)}`,
    secondsLeft > 0 && `all up in about ${spanName(secondsLeft)}`,
  ];
  return says.filter(Boolean).join(' · ');
}

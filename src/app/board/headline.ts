import { lineRate, spanName } from '@/core/delivery';
import { isWorking } from '@/core/drop';
import type { BoardRow } from '@/desk/look/views';
import type { Arrival } from '@/ui/arrivals/arrivals';

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'];

/** What the Board says first: how many things need a person. */
export function headline(rows: readonly BoardRow[]): string {
  const count = rows.filter((row) => row.group === 'needs you').length;
  if (count === 0) return 'Nothing needs you';
  const number = NUMBERS[count] ?? String(count);
  return count === 1 ? `${number} thing needs you` : `${number} things need you`;
}

/** What moves, how fast, and until when. */
export function underline(rows: readonly BoardRow[], arrivals: readonly Arrival[]): string {
  const drops = rows.flatMap((row) => row.drops);
  const moving = drops.filter((drop) => isWorking(drop.state)).length;
  const held = drops.filter((drop) => drop.state === 'held').length;
  const rate = drops.reduce(
    (sum, drop) => sum + (drop.state === 'landing' ? (drop.progress?.bytesPerSecond ?? 0) : 0),
    0,
  );
  const left = Math.max(0, ...drops.map((drop) => (drop.state === 'landing' ? (drop.progress?.secondsLeft ?? 0) : 0)));
  const says = [
    arrivals.length > 0 && `${arrivals.length} arriving`,
    moving > 0 && `${moving} on the way`,
    rate > 0 && `line ${lineRate(rate)}`,
    left > 0 && `all up in about ${spanName(left)}`,
    held > 0 && `${held} held`,
  ];
  return says.filter(Boolean).join(' · ');
}

import { lineRate, spanName } from '@/core/delivery';
import { Meter } from '../meter';
import type { Arrival } from './arrivals';

/** How far a file has come in: share, rate, time left. */
export function ArrivalBar({ arrival }: { arrival: Arrival }) {
  const share = arrival.total > 0 ? arrival.sent / arrival.total : 0;
  const left = arrival.secondsLeft === undefined ? '' : ` · ${spanName(arrival.secondsLeft)} left`;
  const says =
    arrival.waits === 'turn'
      ? 'Waits for its turn'
      : arrival.waits === 'line'
        ? 'Waits for Kettle Drop to answer; it goes on by itself'
        : `Arriving ${Math.floor(share * 100)} % · ${lineRate(arrival.bytesPerSecond)}${left}`;
  return <Meter share={share} says={says} />;
}

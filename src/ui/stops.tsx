import { STOP_WORDS, STOPS } from '@/core/drop';
import type { DropView } from '@/desk/views/views';

const GAP = 23;
const FIRST = 8;
const at = (stop: number) => FIRST + stop * GAP;

/** How a drop stands, for shape and colour. */
export type StopsLook = 'moving' | 'held' | 'live' | 'snag' | 'idle';

export const LOOK_COLOURS: Record<StopsLook, string> = {
  moving: 'text-moving',
  held: 'text-held',
  live: 'text-live',
  snag: 'text-snag',
  idle: 'text-idle',
};

/** The look of a drop's state. @param matched whether it is live, and a rights match waits for a person */
export function lookOf({ state, matched }: Pick<DropView, 'state'> & { matched?: boolean }): StopsLook {
  if (matched) return 'snag';
  if (state === 'snag' || state === 'held' || state === 'live') return state;
  return state === 'draft' || state === 'removed' ? 'idle' : 'moving';
}

interface StopsProps {
  behind: number;
  look: StopsLook;
  /** Share of the way to the next stop, between 0 and 1. */
  fraction?: number;
}

/** The six stops of a drop: those behind it filled, the next one marked by shape for what it waits for. */
export function Stops({ behind, look, fraction = 0 }: StopsProps) {
  const reached = behind > 0 ? at(behind - 1) : FIRST;
  const way = look === 'moving' && behind > 0 ? GAP * Math.min(1, fraction) : 0;
  const last = STOPS[behind - 1];
  const label = last ? `${behind} of 6 steps done, last: ${STOP_WORDS[last]}` : 'no step done yet';
  return (
    <svg
      width="132"
      height="16"
      viewBox="0 0 132 16"
      role="img"
      aria-label={label}
      className={`${LOOK_COLOURS[look]} block`}
    >
      <path d={`M${FIRST} 8H${at(5)}`} stroke="var(--edge)" strokeWidth="2" />
      {behind > 0 && <path d={`M${FIRST} 8H${reached + way}`} stroke="currentColor" strokeWidth="3" />}
      {STOPS.map((stop, index) => {
        const next = index === behind && look !== 'idle';
        if (index < behind) return <circle key={stop} cx={at(index)} cy="8" r="4.5" fill="currentColor" />;
        const x = at(index);
        if (next && look === 'snag') {
          const triangle = `M${x - 6} 13.500 ${x} 2.500 ${x + 6} 13.500z`;
          return (
            <path
              key={stop}
              d={triangle}
              fill="var(--card)"
              stroke="currentColor"
              strokeWidth="2"
              strokeLinejoin="round"
            />
          );
        }
        if (next && look === 'held') {
          const bars = `M${x - 3} 3.500v9M${x + 3} 3.500v9`;
          return <path key={stop} d={bars} stroke="currentColor" strokeWidth="2.6" strokeLinecap="round" />;
        }
        const stroke = next ? 'currentColor' : 'var(--edge)';
        return <circle key={stop} cx={x} cy="8" r="4" fill="var(--card)" stroke={stroke} strokeWidth="2" />;
      })}
    </svg>
  );
}

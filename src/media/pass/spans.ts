import type { CutSpan } from '@/core/delivery';
import { compare, type Fraction, fromDecimal, minus, ZERO } from '@/core/time';
import type { ToldFrame } from './told';

/**
 * Spans that a filter tells of by where each starts and where it ends, as seconds. One that is open when the cut ends goes to
 * its end.
 * @param keys of the values in which start and end stand
 * @param least shorter ones do not count, in exact seconds
 * @param exact a time as it really is, such as that of the nearest frame
 */
export function spansTold(keys: { from: string; to: string }, least: Fraction, exact: (time: Fraction) => Fraction) {
  const spans: CutSpan[] = [];
  let open: Fraction | undefined;
  const timeIn = ({ values }: ToldFrame, key: string) => {
    const time = fromDecimal(values.get(key) ?? '');
    return time && exact(compare(time, ZERO) < 0 ? ZERO : time);
  };
  const close = (to: Fraction) => {
    if (open && compare(minus(to, open), least) >= 0) spans.push({ from: open, to });
    open = undefined;
  };
  return {
    hear(frame: ToldFrame) {
      const to = timeIn(frame, keys.to);
      if (to) close(to);
      open = timeIn(frame, keys.from) ?? open;
    },
    /** All of them. @param end where the cut ends */
    upTo(end: Fraction): CutSpan[] {
      close(end);
      return spans;
    },
  };
}

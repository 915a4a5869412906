import type { PictureMeasures } from '@/core/delivery';
import { type Fraction, fraction, minus, over, plus, times, toNumber, ZERO } from '@/core/time';
import { spansTold } from './spans';
import { numberIn, type ToldFrame } from './told';

/** How different two pictures are, of 100, where a shot ends (the default of ffmpeg's scdet filter is 10). */
const SHOT_THRESHOLD = 10;
/** What is shorter is a cut to black, or a still of an edit: common practice, no source. */
const LEAST_BLACK = fraction(1, 2);
const LEAST_FROZEN = fraction(2);
/** So far from the usual, as a share of it, a frame lasts longer or shorter: containers round to whole milliseconds. */
const VARIES = 0.25;
/** So many frames of a thousand. */
const VARYING_FRAMES = 0.005;

/** Filters that look at the picture, small, one after the other, and tell of each frame. @param pipe where to */
export const pictureFilters = (pipe: string): string =>
  [
    'scale=320:-2:flags=fast_bilinear',
    `scdet=threshold=${SHOT_THRESHOLD}`,
    'blackdetect=d=0:pix_th=0.10',
    `freezedetect=n=-60dB:d=${toNumber(LEAST_FROZEN)}`,
    `metadata=print:file=${pipe}`,
  ].join(',');

/** What is heard of the picture. @param rate exact frames a second */
export function pictureMeter(rate: Fraction) {
  const frameOf = (time: Fraction) => Math.round(toNumber(times(time, rate)));
  // A container may begin before its first picture, as where sound is coded with a lead; the cut begins with that picture.
  let start: Fraction | undefined;
  const onFrame = (time: Fraction) => over(fraction(frameOf(minus(time, start ?? ZERO))), rate);
  const black = spansTold({ from: 'lavfi.black_start', to: 'lavfi.black_end' }, LEAST_BLACK, onFrame);
  const frozen = spansTold(
    { from: 'lavfi.freezedetect.freeze_start', to: 'lavfi.freezedetect.freeze_end' },
    LEAST_FROZEN,
    onFrame,
  );
  const shots: number[] = [];
  const lasts = new Map<number, number>();
  let before: Fraction | undefined;
  return {
    hear(frame: ToldFrame) {
      start ??= frame.at;
      black.hear(frame);
      frozen.hear(frame);
      const shot = numberIn(frame, 'lavfi.scd.time');
      if (shot !== undefined) shots.push(Math.round(((shot - toNumber(start)) * rate.num) / rate.den));
      if (before) {
        const milliseconds = Math.round(toNumber(minus(frame.at, before)) * 1000);
        lasts.set(milliseconds, (lasts.get(milliseconds) ?? 0) + 1);
      }
      before = frame.at;
    },
    /** What was found, and when the first picture is shown, in the time of the container. */
    end(): { start: Fraction; shots: number[]; picture: PictureMeasures } {
      const end = before ? plus(onFrame(before), over(fraction(1), rate)) : ZERO;
      const varies = share(lasts) > VARYING_FRAMES;
      return {
        start: start ?? ZERO,
        shots,
        picture: { end, varies, black: black.upTo(end), frozen: frozen.upTo(end) },
      };
    },
  };
}

/** Which share of the frames lasts much longer or shorter than most. @param lasts how many last so many milliseconds */
function share(lasts: ReadonlyMap<number, number>): number {
  const all = [...lasts].sort(([, a], [, b]) => b - a);
  const usual = all[0]?.[0] ?? 0;
  const count = all.reduce((sum, [, frames]) => sum + frames, 0);
  // Of rates whose frames take no whole number of milliseconds, two neighbours are as usual as each other.
  const apart = all.filter(([last]) => Math.abs(last - usual) > Math.max(2, usual * VARIES));
  return count === 0 ? 0 : apart.reduce((sum, [, frames]) => sum + frames, 0) / count;
}

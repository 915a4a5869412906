import { type Fraction, fraction, minus, over, toDecimal, ZERO } from '@/core/time';
import { runProgram } from './program';

/**
 * Takes the frame that is on screen at a time out of a cut as a JPEG, 16:9, 1280 to 1920 wide. A cut of another shape is
 * cropped about its middle.
 * @param time exact seconds, the start of the frame
 * @param rate exact frames a second
 * @param sourceWidth the cut's width in pixels
 */
export async function takeFrame(
  from: string,
  to: string,
  time: Fraction,
  rate: Fraction,
  sourceWidth: number,
): Promise<void> {
  // Half a frame early: the first frame at or after that is the one that is meant, whatever the rounding.
  const early = minus(time, over(fraction(1, 2), rate));
  const at = toDecimal(early.num < 0 ? ZERO : early, 6);
  const wide = sourceWidth >= 1600;
  const [width, height] = wide ? [1920, 1080] : [1280, 720];
  const shape = `scale=${width}:${height}:force_original_aspect_ratio=increase,crop=${width}:${height}`;
  await runProgram('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-ss', at, '-i', from, '-frames:v', '1'],
    ...['-vf', shape, '-q:v', '3', '-f', 'image2', '-c:v', 'mjpeg', to],
  ]);
}

import { access } from 'node:fs/promises';
import sharp from 'sharp';
import { type Fraction, fraction, minus, over, toDecimal, ZERO } from '@/core/time';
import { FROM_OUTSIDE, ProgramError, runProgram } from './program';

/** The longer side that a frame is kept in at the most, in pixels. */
const LONGEST = 1920;

/**
 * Takes the frame that is on screen at a time out of a cut as a JPEG, in the cut's own shape, its longer side at most 1920.
 * @param time exact seconds, the start of the frame
 * @param rate exact frames a second
 * @throws ProgramError where there is no picture at that time
 */
export async function takeFrame(from: string, to: string, time: Fraction, rate: Fraction): Promise<void> {
  // Half a frame early: the first frame at or after that is the one that is meant, whatever the rounding.
  const early = minus(time, over(fraction(1, 2), rate));
  const at = toDecimal(early.num < 0 ? ZERO : early, 6);
  // Pixels that are not square are drawn square first, as players show them.
  const square = "scale='trunc(iw*sar/2)*2':'trunc(ih/2)*2',setsar=1";
  const within = `scale='min(${LONGEST},iw)':'min(${LONGEST},ih)':force_original_aspect_ratio=decrease:force_divisible_by=2`;
  await runProgram('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-ss', at, ...FROM_OUTSIDE, '-i', from, '-frames:v', '1'],
    ...['-vf', `${square},${within}`, '-q:v', '3', '-f', 'image2', '-c:v', 'mjpeg', to],
  ]);
  // Where the sound outlasts the picture, ffmpeg ends well and writes nothing.
  await access(to).catch(() => {
    throw new ProgramError('ffmpeg', 'there is no picture at that moment');
  });
}

/** What players show beside a list: wide, in the two usual sizes. */
const WIDE = { width: 16, height: 9 };

const isWide = ({ width, height }: { width: number; height: number }) =>
  Math.abs(width * WIDE.height - height * WIDE.width) <= Math.max(WIDE.width, WIDE.height);

/**
 * Makes a 16:9 picture of a frame, 1920 or 1280 wide, as a JPEG. A frame of another shape stands whole in it, over itself
 * blurred: nobody can tell which part of it matters.
 * @returns whether the frame had another shape
 */
export async function makeWide(frame: string, to: string): Promise<boolean> {
  const { width = 0, height = 0 } = await sharp(frame).metadata();
  const size = Math.max(width, height) >= 1600 ? { width: 1920, height: 1080 } : { width: 1280, height: 720 };
  if (isWide({ width, height })) {
    await sharp(frame)
      .resize({ ...size, fit: 'cover' })
      .jpeg({ quality: 90 })
      .toFile(to);
    return false;
  }
  const whole = await sharp(frame)
    .resize({ ...size, fit: 'inside' })
    .toBuffer();
  await sharp(frame)
    .resize({ ...size, fit: 'cover' })
    .blur(36)
    .modulate({ brightness: 0.7 })
    .composite([{ input: whole, gravity: 'centre' }])
    .jpeg({ quality: 90 })
    .toFile(to);
  return true;
}

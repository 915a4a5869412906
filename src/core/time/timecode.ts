import { type Fraction, floor, fraction, over, times } from './fraction';
import { canDropFrames, nominal, type Rate } from './rate';

/** A timecode that cannot be: the text, and why. */
export class TimecodeError extends Error {
  override name = 'TimecodeError';
}

const SHAPE = /^(\d{1,3}):(\d{2}):(\d{2})([:;.,])(\d{2,3})$/;

/** Frame numbers that drop-frame leaves out at the start of a minute: 2 at 29.97, 4 at 59.94 (SMPTE ST 12-1, 5.2.2). */
function dropped(rate: Rate): number {
  return (nominal(rate) / 30) * 2;
}

/**
 * The count of frames from 00:00:00:00 to a timecode.
 * A `;` or `,` before the frames does not by itself make the rate drop-frame: the rate decides.
 * @throws TimecodeError where the text is no timecode, or names a frame that the rate does not have.
 */
export function frameOfTimecode(text: string, rate: Rate): number {
  const match = SHAPE.exec(text.trim());
  if (!match) throw new TimecodeError(`"${text}" is not a timecode; it should look like 01:00:00:00`);
  const [hours, minutes, seconds, frames] = [match[1], match[2], match[3], match[5]].map(Number) as [
    number,
    number,
    number,
    number,
  ];
  const perSecond = nominal(rate);
  if (minutes > 59 || seconds > 59) throw new TimecodeError(`"${text}" has more than 59 minutes or seconds`);
  if (frames >= perSecond) {
    throw new TimecodeError(`"${text}" has frame ${frames}, but a second has ${perSecond} frames here`);
  }
  const counted = ((hours * 60 + minutes) * 60 + seconds) * perSecond + frames;
  if (!rate.dropFrame) return counted;
  if (!canDropFrames(rate)) throw new TimecodeError('Drop-frame is only defined for multiples of 30000/1001');
  const skip = dropped(rate);
  if (seconds === 0 && frames < skip && minutes % 10 !== 0) {
    throw new TimecodeError(`"${text}" does not exist in drop-frame: minute ${minutes} starts at frame ${skip}`);
  }
  const allMinutes = hours * 60 + minutes;
  return counted - skip * (allMinutes - Math.floor(allMinutes / 10));
}

/** The timecode of a frame count (zero or more), hours going on past 24; `;` stands before the frames in drop-frame. */
export function timecodeOfFrame(frame: number, rate: Rate): string {
  if (!Number.isSafeInteger(frame) || frame < 0) throw new RangeError(`${frame} is no frame count`);
  const perSecond = nominal(rate);
  let number = frame;
  if (rate.dropFrame) {
    const skip = dropped(rate);
    const perMinute = perSecond * 60 - skip;
    const perTen = perMinute * 10 + skip;
    const [tens, rest] = [Math.floor(frame / perTen), frame % perTen];
    number += skip * (tens * 9 + (rest < skip ? 0 : Math.floor((rest - skip) / perMinute)));
  }
  const two = (value: number) => String(value).padStart(2, '0');
  const totalSeconds = Math.floor(number / perSecond);
  const clock = [Math.floor(totalSeconds / 3600), Math.floor(totalSeconds / 60) % 60, totalSeconds % 60].map(two);
  return `${clock.join(':')}${rate.dropFrame ? ';' : ':'}${two(number % perSecond)}`;
}

/** The exact time, in seconds, at which a frame starts. */
export function timeOfFrame(frame: number, rate: Rate): Fraction {
  return over(fraction(frame), rate);
}

/** The frame that is on screen at a time: the last that starts at or before it. */
export function frameAtTime(time: Fraction, rate: Rate): number {
  return floor(times(time, rate));
}

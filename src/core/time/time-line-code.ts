import { type Fraction, fromDecimal, minus } from './fraction';
import type { Rate } from './rate';
import { frameAtTime, frameOfTimecode, timecodeOfFrame, timeOfFrame } from './timecode';

/**
 * The timecode of a moment of the time line; one before the timecode 00:00:00:00 stands with a minus sign.
 * @param time seconds from the start of the cut
 * @param startFrame the frame number at which the time line starts
 */
export function codeAt(time: Fraction, startFrame: number, rate: Rate): string {
  const frame = startFrame + frameAtTime(time, rate);
  return frame < 0 ? `−${timecodeOfFrame(-frame, rate)}` : timecodeOfFrame(frame, rate);
}

/**
 * The moment of the time line that a timecode names.
 * @param startFrame the frame number at which the time line starts
 * @throws TimecodeError
 */
export function timeAtCode(text: string, startFrame: number, rate: Rate): Fraction {
  return minus(timeOfFrame(frameOfTimecode(text, rate), rate), timeOfFrame(startFrame, rate));
}

/**
 * A length as people type it, with or without a sign: frames (`12`), seconds with a point or an s (`1.5`, `2s`), or
 * timecode (`00:00:01:12`).
 * @returns undefined where it is none
 */
export function lengthFromText(text: string, rate: Rate): Fraction | undefined {
  const [, sign = '', rest = ''] = /^\s*([+−-]?)\s*(.*?)\s*$/.exec(text) ?? [];
  const length = positiveLength(rest, { ...rate, dropFrame: false });
  return length && (sign === '-' || sign === '−') ? { num: 0 - length.num, den: length.den } : length;
}

function positiveLength(text: string, rate: Rate): Fraction | undefined {
  if (/^\d{1,9}$/.test(text)) return timeOfFrame(Number(text), rate);
  if (/^[\d.]+\s*s?$/.test(text)) return fromDecimal(text.replace(/\s*s$/, ''));
  try {
    return timeOfFrame(frameOfTimecode(text, rate), rate);
  } catch {
    return undefined;
  }
}

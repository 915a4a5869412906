import { type Fraction, fraction, fromDecimal, minus, plus } from './fraction';
import type { Rate } from './rate';
import { frameAtTime, frameOfTimecode, TimecodeError, timecodeOfFrame, timeOfFrame } from './timecode';

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

/** What a time line counts by: its rate, the frame that it starts at, and the moment at which the video begins. */
export interface TimeLineCounts {
  rate: Rate;
  startFrame: number;
  /** Seconds on the time line. */
  from: Fraction;
}

const AS_VIEWERS_READ = /^(?:(\d{1,3}):)?(\d{1,3}):([0-5]\d)(\.\d{1,9})?$/;
const FRAMES = /^(?:frame\s*(\d{1,9})|(\d{1,9})\s*f?)$/i;

/**
 * A moment of the time line in any form in which the Sheet shows one: timecode (`01:00:12:05`); the video's minutes and
 * seconds as viewers read them (`0:30`, `1:04:05`, `0:30.5`); its seconds (`12.5 s`); a frame of it (`frame 120`, `120`).
 * @throws TimecodeError where it is none of these, or a timecode that the rate does not have
 */
export function momentFromText(text: string, { rate, startFrame, from }: TimeLineCounts): Fraction {
  const typed = text.trim();
  const viewers = AS_VIEWERS_READ.exec(typed);
  if (viewers) {
    const [, hours = '0', minutes, seconds, rest = ''] = viewers;
    const whole = fraction(Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds));
    return plus(from, plus(whole, fromDecimal(`0${rest}`) ?? fraction(0)));
  }
  const frames = FRAMES.exec(typed);
  if (frames) return plus(from, timeOfFrame(Number(frames[1] ?? frames[2]), rate));
  const seconds = /^([\d.]+)\s*s?$/.test(typed) ? fromDecimal(typed.replace(/\s*s$/, '')) : undefined;
  if (seconds) return plus(from, seconds);
  if (/^[\d:;.,\s]+$/.test(typed) && /[:;]/.test(typed)) return timeAtCode(typed, startFrame, rate);
  throw new TimecodeError(`"${text}" is no time; type 0:30, 12.5 s, frame 120 or 01:00:00:00`);
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

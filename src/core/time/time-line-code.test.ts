import { describe, expect, it } from 'vitest';
import { fraction, plus } from './fraction';
import { rate } from './rate';
import { codeAt, lengthFromText, momentFromText, timeAtCode } from './time-line-code';
import { TimecodeError } from './timecode';

const PAL = rate(25);
const DROP = rate(30000, 1001, true);

describe('timecode on a time line', () => {
  it('counts from the frame that the time line starts at, and goes back', () => {
    expect(codeAt(fraction(31, 2), 90_000, PAL)).toBe('01:00:15:12');
    expect(timeAtCode('01:00:15:12', 90_000, PAL)).toEqual(fraction(387, 25));
    expect(codeAt(timeAtCode('01:01:00;02', 107_892, DROP), 107_892, DROP)).toBe('01:01:00;02');
  });

  it('shows what lies before the start, and before 00:00:00:00', () => {
    expect(codeAt(fraction(-1, 25), 90_000, PAL)).toBe('00:59:59:24');
    expect(codeAt(fraction(-2), 0, PAL)).toBe('−00:00:02:00');
    expect(timeAtCode('00:59:59:24', 90_000, PAL)).toEqual(fraction(-1, 25));
  });

  it('refuses a timecode that cannot be', () => {
    expect(() => timeAtCode('01:01:00;00', 0, DROP)).toThrow(TimecodeError);
  });
});

describe('moments as people type them', () => {
  const counts = { rate: PAL, startFrame: 90_000, from: fraction(10) };
  it.each([
    ['01:00:15:12', fraction(387, 25)],
    ['0:30', fraction(40)],
    ['1:04:05', fraction(3855)],
    ['0:30.5', fraction(81, 2)],
    ['12.5 s', fraction(45, 2)],
    ['12s', fraction(22)],
    ['frame 50', fraction(12)],
    ['50 f', fraction(12)],
    ['50', fraction(12)],
  ])('%s', (text, moment) => {
    expect(momentFromText(text, counts)).toEqual(moment);
  });

  it.each(['', 'soon', '0:75', '1.2.3', '01:00:15:99', '-3'])('%j is none, and says which there are', (text) => {
    expect(() => momentFromText(text, counts)).toThrow(TimecodeError);
  });

  it('counts frames of the exact rate, and takes what the Sheet shows back to the same frame', () => {
    const ntsc = { rate: DROP, startFrame: 107_892, from: fraction(1001, 3000) };
    for (const frame of [0, 1, 29, 1799, 1800, 17982]) {
      const moment = momentFromText(`frame ${frame}`, ntsc);
      expect(moment).toEqual(plus(ntsc.from, fraction(frame * 1001, 30000)));
      expect(momentFromText(codeAt(moment, ntsc.startFrame, DROP), ntsc)).toEqual(moment);
    }
  });
});

describe('lengths as people type them', () => {
  it.each([
    ['12', fraction(12, 25)],
    ['-12', fraction(-12, 25)],
    ['−00:00:01:12', fraction(-37, 25)],
    ['+1.5', fraction(3, 2)],
    ['2s', fraction(2)],
    ['00:01:00:00', fraction(60)],
  ])('%s', (text, length) => {
    expect(lengthFromText(text, PAL)).toEqual(length);
  });

  it.each(['', '-', 'soon', '00:00:00:99', '1.2.3'])('%j is none', (text) => {
    expect(lengthFromText(text, PAL)).toBeUndefined();
  });
});

import { describe, expect, it } from 'vitest';
import { fraction } from './fraction';
import { rate } from './rate';
import { codeAt, lengthFromText, timeAtCode } from './time-line-code';
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

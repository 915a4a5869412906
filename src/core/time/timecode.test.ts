import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fraction } from './fraction';
import { rate, rateName } from './rate';
import { frameAtTime, frameOfTimecode, TimecodeError, timecodeOfFrame, timeOfFrame } from './timecode';

const RATES = [
  rate(24000, 1001),
  rate(24),
  rate(25),
  rate(30000, 1001),
  rate(30000, 1001, true),
  rate(30),
  rate(50),
  rate(60000, 1001, true),
  rate(60),
];

describe('timecode', () => {
  it('goes to a frame and back at every rate', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RATES), fc.integer({ min: 0, max: 10_000_000 }), (at, frame) => {
        expect(frameOfTimecode(timecodeOfFrame(frame, at), at)).toBe(frame);
        expect(frameAtTime(timeOfFrame(frame, at), at)).toBe(frame);
      }),
    );
  });

  it('refuses what is no timecode, and says why', () => {
    const refused = (text: string, at = rate(25)) => {
      expect(() => frameOfTimecode(text, at)).toThrow(TimecodeError);
    };
    refused('1:2:3');
    refused('00:61:00:00');
    refused('00:00:00:25');
    refused('00:01:00;00', rate(30000, 1001, true));
    refused('00:00:00:00', rate(25, 1, true));
  });

  it('says rates as people do', () => {
    expect(rateName(rate(24000, 1001))).toBe('23.976');
    expect(rateName(rate(30000, 1001, true))).toBe('29.97 drop');
    expect(rateName(rate(25))).toBe('25');
  });

  it('gives the frame on screen at a time between two frames', () => {
    expect(frameAtTime(fraction(999, 25000), rate(25))).toBe(0);
    expect(frameAtTime(fraction(1, 25), rate(25))).toBe(1);
  });
});

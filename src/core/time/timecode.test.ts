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

  // SMPTE ST 12-1, 5.2.2: frame numbers 00 and 01 are left out at each minute but every tenth (four of them at 59.94).
  it.each([
    [0, '00:00:00;00', '00:00:00;00'],
    [1, '00:00:00;01', '00:00:00;01'],
    [1799, '00:00:59;29', '00:00:29;59'],
    [1800, '00:01:00;02', '00:00:30;00'],
    [17_981, '00:09:59;29', '00:04:59;57'],
    [17_982, '00:10:00;00', '00:04:59;58'],
    [17_983, '00:10:00;01', '00:04:59;59'],
    [17_984, '00:10:00;02', '00:05:00;04'],
    [19_782, '00:11:00;02', '00:05:30;02'],
    [107_892, '01:00:00;00', '00:30:00;00'],
  ])('frame %i has its number with others left out', (frame, at30, at60) => {
    const [slow, fast] = [rate(30000, 1001, true), rate(60000, 1001, true)];
    expect([timecodeOfFrame(frame, slow), frameOfTimecode(at30, slow)]).toEqual([at30, frame]);
    expect([timecodeOfFrame(frame, fast), frameOfTimecode(at60, fast)]).toEqual([at60, frame]);
  });

  it('is of a whole frame that is not before the first, and of a text that says what is wrong with it', () => {
    for (const frame of [-1, 0.5, Number.NaN])
      expect(() => timecodeOfFrame(frame, rate(25))).toThrow('is no frame count');
    const says = (text: string, at = rate(25)) => {
      try {
        return String(frameOfTimecode(text, at));
      } catch (error) {
        return String(error);
      }
    };
    expect(says('later')).toBe('TimecodeError: "later" is not a timecode; it should look like 01:00:00:00');
    expect(says('00:60:00:00')).toBe('TimecodeError: "00:60:00:00" has more than 59 minutes or seconds');
    expect(says('00:00:60:00')).toContain('more than 59');
    expect(says('00:00:00:25')).toBe('TimecodeError: "00:00:00:25" has frame 25, but a second has 25 frames here');
    expect(says('00:11:00;01', rate(30000, 1001, true))).toContain('minute 11 starts at frame 2');
    expect(says('00:00:00:00', rate(25, 1, true))).toContain('only defined for multiples of 30000/1001');
    expect(says(' 00:00:01:00 ')).toBe('25');
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

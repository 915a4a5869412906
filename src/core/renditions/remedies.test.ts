import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, type Fraction, fraction, minus, over, times } from '../time';
import { movedChapters, movedMoment, nearestMoment } from './remedies';
import { soundAroundWords } from './said';

const rates = [
  fraction(24_000, 1001),
  fraction(24),
  fraction(25),
  fraction(30_000, 1001),
  fraction(30),
  fraction(50),
  fraction(60_000, 1001),
  fraction(60),
];
const chapter = (time: Fraction, title: string) => ({ time, title });

describe('what is left off at the start', () => {
  it('moves no chapter by a frame, at any rate', () => {
    const frames = fc.integer({ min: 0, max: 500_000 });
    fc.assert(
      fc.property(
        fc.constantFrom(...rates),
        frames,
        fc.uniqueArray(frames, { maxLength: 12 }),
        (rate, left, starts) => {
          const at = (frame: number) => over(fraction(frame), rate);
          const chapters = [...starts]
            .sort((a, b) => a - b)
            .map((frame) => ({ ...chapter(at(frame), String(frame)), frame }));
          const moved = movedChapters(chapters, { from: at(left) }, { duration: at(500_001) });
          for (const { time, frame } of moved) {
            const expected = Math.max(0, frame - left);
            expect(times(time, rate)).toEqual(fraction(expected));
          }
          // All that begin in what stays are there.
          expect(moved.filter(({ frame }) => frame >= left)).toHaveLength(
            starts.filter((frame) => frame >= left).length,
          );
        },
      ),
    );
  });

  it('keeps the chapter that goes on into what stays, from the first frame', () => {
    const chapters = [chapter(fraction(0), 'One'), chapter(fraction(10), 'Two'), chapter(fraction(30), 'Three')];
    const moved = movedChapters(chapters, { from: fraction(12), to: fraction(29) }, { duration: fraction(60) });
    expect(moved).toEqual([{ time: fraction(0), title: 'Two' }]);
  });

  it('tells of a moment whether it is still there', () => {
    const remedies = { from: fraction(2), to: fraction(8) };
    const facts = { duration: fraction(10) };
    expect(movedMoment(fraction(1), remedies, facts)).toBeUndefined();
    expect(movedMoment(fraction(8), remedies, facts)).toBeUndefined();
    expect(movedMoment(fraction(5), remedies, facts)).toEqual(minus(fraction(5), fraction(2)));
    expect(compare(movedMoment(fraction(2), remedies, facts) ?? fraction(1), fraction(0))).toBe(0);
  });
});

describe('the moment nearest to one that may be left off', () => {
  const facts = { duration: fraction(60) };
  const near = (at: number, remedies: Parameters<typeof nearestMoment>[1]) =>
    nearestMoment(fraction(at), remedies, facts);

  it('is itself where it stays, counted from where the file begins', () => {
    expect(near(20, {})).toEqual(fraction(20));
    expect(near(20, { from: fraction(12), to: fraction(40) })).toEqual(fraction(8));
    expect(near(30, { without: [{ from: fraction(10), to: fraction(15) }] })).toEqual(fraction(25));
  });

  it('is the first that stays after one that is left off', () => {
    expect(near(3, { from: fraction(12) })).toEqual(fraction(0));
    expect(near(12, { without: [{ from: fraction(10), to: fraction(15) }] })).toEqual(fraction(10));
  });

  it('is the start where nothing stays after it', () => {
    expect(near(50, { from: fraction(12), to: fraction(40) })).toEqual(fraction(0));
    expect(near(40, { from: fraction(12), to: fraction(40) })).toEqual(fraction(0));
    expect(near(39, { from: fraction(12), to: fraction(40) })).toEqual(fraction(27));
    expect(near(60, {})).toEqual(fraction(0));
    expect(near(58, { without: [{ from: fraction(55), to: fraction(60) }] })).toEqual(fraction(0));
  });
});

describe('what is said of the sound around a part that is silent', () => {
  it('is how far it is new, or that all of it is', () => {
    expect([undefined, 0, 1, 341, 2999, 3000].map(soundAroundWords)).toEqual([
      '',
      'All other sound is as it was.',
      'All other sound is as it was, but for up to 0.01 s around.',
      'All other sound is as it was, but for up to 0.35 s around.',
      'All other sound is as it was, but for up to 3.00 s around.',
      'The rest of the sound was encoded once more, too.',
    ]);
  });
});

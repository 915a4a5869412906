import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type HeldDrop, isMissed, openingOf } from './opening';

const now = new Date('2026-11-27T10:00:00Z');
const later = new Date(now.getTime() + 1000);
const plain: HeldDrop = { way: 'on my word', instant: undefined, wordAt: undefined, notChecked: [], isAgreed: true };

describe('when a drop that is held opens', () => {
  it('is by a word, whatever else was said', () => {
    for (const way of ['on my word', 'at a time', 'together'] as const) {
      expect(openingOf({ ...plain, way, instant: later, notChecked: ['A'], wordAt: now }, now).does).toBe('open');
      expect(openingOf({ ...plain, way, wordAt: later }, now)).toEqual({ does: 'wait', until: later });
    }
    expect(openingOf(plain, now)).toEqual({ does: 'wait', until: undefined, for: 'a word' });
  });

  it('is at its time, to the millisecond', () => {
    const timed: HeldDrop = { ...plain, way: 'at a time', instant: now };
    expect(openingOf(timed, new Date(now.getTime() - 1))).toEqual({ does: 'wait', until: now });
    expect(openingOf(timed, now)).toEqual({ does: 'open', moment: now });
  });

  it('is together at once when all are checked, or then at the set time', () => {
    const together: HeldDrop = { ...plain, way: 'together' };
    expect(openingOf(together, now).does).toBe('open');
    expect(openingOf({ ...together, notChecked: ['A'] }, now)).toMatchObject({ until: undefined, for: 'the others' });
    expect(openingOf({ ...together, instant: later }, now)).toEqual({ does: 'wait', until: later });
    expect(openingOf({ ...together, instant: now, notChecked: ['A'] }, now).does).toBe('wait');
  });

  it('is never by a choice alone: what was set to a moment that is over asks, and what has none waits for a word', () => {
    const chosen: HeldDrop = { ...plain, isAgreed: false };
    expect(openingOf({ ...chosen, way: 'together' }, now)).toEqual({ does: 'wait', until: undefined, for: 'a word' });
    for (const way of ['at a time', 'together', 'first showing'] as const) {
      expect(openingOf({ ...chosen, way, instant: now }, now)).toEqual({ does: 'ask', moment: now });
      expect(openingOf({ ...chosen, way, instant: later }, now)).toEqual({ does: 'wait', until: later });
      expect(openingOf({ ...chosen, way, instant: now, wordAt: now }, now).does).toBe('open');
    }
    expect(openingOf({ ...chosen, way: 'together', instant: now, notChecked: ['A'] }, now)).toMatchObject({
      does: 'wait',
    });
  });

  it('is never before its time, nor before the others are checked, unless a word was given', () => {
    const date = fc.integer({ min: -5, max: 5 }).map((seconds) => new Date(now.getTime() + seconds * 1000));
    const drop = fc.record({
      way: fc.constantFrom<HeldDrop['way']>('on my word', 'at a time', 'together'),
      instant: fc.option(date, { nil: undefined }),
      wordAt: fc.option(date, { nil: undefined }),
      notChecked: fc.array(fc.constant('A'), { maxLength: 1 }),
      isAgreed: fc.boolean(),
    });
    fc.assert(
      fc.property(drop, (held) => {
        if (openingOf(held, now).does !== 'open') return;
        const { way, instant, wordAt, notChecked, isAgreed } = held;
        if (wordAt) {
          expect(wordAt <= now).toBe(true);
          return;
        }
        expect(isAgreed).toBe(true);
        expect(way).not.toBe('on my word');
        expect(instant === undefined || instant <= now).toBe(true);
        if (way === 'together') expect(notChecked).toEqual([]);
      }),
    );
  });

  it('is missed where it is later than was said to be all right', () => {
    const hours = (count: number) => new Date(now.getTime() + count * 3_600_000);
    expect([isMissed(now, hours(24), 24), isMissed(now, hours(24.1), 24), isMissed(now, later, 0)]).toEqual([
      false,
      true,
      true,
    ]);
  });
});

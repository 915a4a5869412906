import { describe, expect, it } from 'vitest';
import { isDueByItself, lateWords, momentOf, secondsLate, wasToldLate } from './late';

const at = (seconds: number) => new Date(Date.UTC(2026, 11, 4, 17) + seconds * 1000);

describe('what opens late', () => {
  it('is late from two seconds on, and where somebody was told that it is, however little', () => {
    expect([0.4, 2, 2.1, 100].map((seconds) => secondsLate(at(0), at(seconds), false))).toEqual([0, 0, 2.1, 100]);
    expect([0, 0.4, 100].map((seconds) => secondsLate(at(0), at(seconds), true))).toEqual([1, 1, 100]);
    expect([2.1, 100, 119, 240].map(lateWords)).toEqual(['2 s', '100 s', '119 s', '4 min']);
  });

  it('was told of for the moment that it is being opened for, and not for one before', () => {
    expect(wasToldLate({ lateTold: undefined, stateSince: at(0) })).toBe(false);
    expect(wasToldLate({ lateTold: at(0), stateSince: at(0) })).toBe(true);
    expect(wasToldLate({ lateTold: at(-1), stateSince: at(0) })).toBe(false);
  });

  it('is what its time opens, and no word', () => {
    const due = { state: 'opening' as const, openAsked: false, releasedFor: 'x' };
    expect(isDueByItself(due)).toBe(true);
    expect(isDueByItself({ ...due, openAsked: true })).toBe(false);
    expect(isDueByItself({ ...due, releasedFor: undefined })).toBe(false);
    expect(isDueByItself({ ...due, state: 'held' })).toBe(false);
  });

  it('was to open at its own time, or, where all open together, as soon as all were checked', () => {
    const opensAt = { wall: '2026-12-04T18:00:00', zone: 'Europe/Berlin' };
    expect(momentOf({ stateSince: at(9) }, { opensAt })).toEqual(at(0));
    expect(momentOf({ stateSince: at(9) }, { opensAt: undefined })).toEqual(at(9));
  });
});

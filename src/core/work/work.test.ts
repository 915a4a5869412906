import { describe, expect, it } from 'vitest';
import { restBetweenRounds, saysMore, waitForAllowance } from './allowance';
import { FAILURES_UNTIL_REST, restAfter } from './circuit';
import { pauseAfter, UNEXPECTED_TRIES, whatFollows } from './follows';
import { nextLookAfter } from './looks';
import { retryAfterSeconds } from './retry-after';

describe('pauses between tries', () => {
  it('double up to a bound, each between half and all of it', () => {
    const at = (chance: number) => [1, 2, 3, 4, 10, 5000].map((tries) => pauseAfter(tries, 60, chance));
    expect(at(1)).toEqual([1, 2, 4, 8, 60, 60]);
    expect(at(0)).toEqual([0.5, 1, 2, 4, 30, 30]);
  });
});

describe('what follows what happened', () => {
  it('what a person has to settle is not tried again', () => {
    expect(whatFollows({ what: 'refused' }, 1, 0)).toEqual({ next: 'a person' });
  });

  it('what nobody knows is tried five times, then it is for a person', () => {
    for (let tries = 1; tries <= UNEXPECTED_TRIES; tries += 1) {
      expect(whatFollows({ what: 'unexpected' }, tries, 1).next).toBe('later');
    }
    expect(whatFollows({ what: 'unexpected' }, UNEXPECTED_TRIES + 1, 1)).toEqual({ next: 'a person' });
  });

  it('what takes too long is tried once more', () => {
    expect([1, 2].map((tries) => whatFollows({ what: 'too long' }, tries, 1).next)).toEqual(['later', 'a person']);
  });

  it('the fault of the machine and a line that is gone are tried for ever', () => {
    expect(whatFollows({ what: 'machine' }, 10_000, 1)).toEqual({ next: 'later', seconds: 300 });
    expect(whatFollows({ what: 'unreachable' }, 10_000, 1)).toEqual({ next: 'later', seconds: 60 });
  });

  it('a site that says when is taken at its word', () => {
    expect(whatFollows({ what: 'busy', retryAfter: 700 }, 9, 0)).toEqual({ next: 'later', seconds: 700 });
    expect(whatFollows({ what: 'busy' }, 2, 1)).toEqual({ next: 'later', seconds: 2 });
  });
});

// RFC 9110, section 10.2.3 gives both of the first two examples.
describe('Retry-After', () => {
  const now = new Date('1999-12-31T23:59:00Z');
  it.each([
    ['120', 120],
    ['Fri, 31 Dec 1999 23:59:59 GMT', 59],
    [' 5 ', 5],
    ['0', 1],
    ['99999999999', 3600],
    ['Fri, 31 Dec 1999 20:00:00 GMT', 1],
    ['-5', undefined],
    ['Infinity', undefined],
    ['1e9', undefined],
    ['1.5', undefined],
    ['soon', undefined],
    ['', undefined],
    [undefined, undefined],
  ])('of %j asks to wait %j s', (field, seconds) => {
    expect(retryAfterSeconds(field, now)).toBe(seconds);
  });
});

describe('a site that fails again and again', () => {
  it('rests only after some failures in a row, and longer each time', () => {
    expect([1, 2].map((failures) => restAfter(failures, 1))).toEqual([undefined, undefined]);
    expect(restAfter(FAILURES_UNTIL_REST + 9, 1, 7)).toBe(7);
    expect([0, 1, 2, 9].map((more) => restAfter(FAILURES_UNTIL_REST + more, 1))).toEqual([2, 4, 8, 60]);
  });
});

describe('looks at a site', () => {
  it('grow apart with age, to a minute, and to a quarter of an hour where people review', () => {
    expect([0, 5, 30, 120, 86_400].map((age) => nextLookAfter(age, 'processing'))).toEqual([1, 1, 3, 12, 60]);
    expect(nextLookAfter(86_400, 'review')).toBe(900);
  });
});

describe('what a site allows', () => {
  const hour = (remaining: number) => ({ policy: 'hour', remaining, quota: 20, seconds: 30 });
  const waits = (remaining: number) =>
    (['read', 'many', 'look', 'work', 'urgent'] as const).map((use) => waitForAllowance([hour(remaining)], use, 0));

  it('is left to what is more important, the last of it to what somebody waits for', () => {
    expect(waits(11)).toEqual([0, 0, 0, 0, 0]);
    expect(waits(10)).toEqual([30, 0, 0, 0, 0]);
    expect(waits(8)).toEqual([30, 30, 0, 0, 0]);
    expect(waits(7)).toEqual([30, 30, 30, 0, 0]);
    expect(waits(4)).toEqual([30, 30, 30, 30, 0]);
    expect(waits(0)).toEqual([30, 30, 30, 30, 30]);
  });

  it('holds by the hour and by the day together, and what waits does not all come back at once', () => {
    const day = { policy: 'day', remaining: 0, quota: 5000, seconds: 4000 };
    expect(waitForAllowance([hour(20), day], 'urgent', 0)).toBe(4000);
    expect(waitForAllowance([hour(0)], 'work', 1)).toBe(37.5);
    expect(waitForAllowance([], 'look', 0)).toBe(0);
  });

  it('is spent where a site only says to come back later', () => {
    const asked = { policy: 'too many requests', remaining: 0, quota: undefined, seconds: 7 };
    expect(waitForAllowance([asked], 'urgent', 0)).toBe(7);
  });

  it('is spread over the time until it is full: all that reads may take, and of looks a quarter', () => {
    const day = (remaining: number, seconds: number) => [{ policy: 'day', remaining, quota: 5000, seconds }];
    // By hand: of 5,000 a look leaves 1,750; a quarter of the 3,250 above is 812.5 rounds of one request in a day.
    expect(restBetweenRounds(day(5000, 86_400), 'look', 1, 60)).toBeCloseTo(86_400 / 812.5, 6);
    expect(restBetweenRounds(day(5000, 86_400), 'look', 8, 60)).toBeCloseTo((8 * 86_400) / 812.5, 6);
    // What reads leave is half: 2,500 of them in a day, twenty in each round.
    expect(restBetweenRounds(day(5000, 86_400), 'read', 20, 15)).toBeCloseTo(86_400 / 125, 6);
    expect(restBetweenRounds(day(5000, 600), 'look', 1, 60)).toBe(60);
    expect(restBetweenRounds(day(1750, 600), 'look', 1, 60)).toBe(600);
    expect(restBetweenRounds(day(1000, 86_400), 'look', 1, 60)).toBe(3600);
    expect(restBetweenRounds([], 'look', 1, 60)).toBe(60);
  });

  it('is news where it is another span, or other requests were made, and not where only ours was', () => {
    const told = (remaining: number, seconds: number, quota = 20) => ({ ...hour(remaining), quota, seconds });
    const known = [{ policy: 'day', remaining: 0, quota: 5000, seconds: 29 }, hour(10)];
    expect(saysMore(told(9, 29), known, 1)).toBe(false);
    // Ours has not been counted there yet, or the end is told in whole seconds.
    expect(saysMore(told(10, 28), known, 1)).toBe(false);
    expect(saysMore(told(8, 29), known, 1)).toBe(true);
    expect(saysMore(told(11, 29), known, 1)).toBe(true);
    expect(saysMore(told(9, 27), known, 1)).toBe(true);
    expect(saysMore(told(9, 31), known, 1)).toBe(true);
    expect(saysMore(told(9, 29, 40), known, 1)).toBe(true);
    // What was known is over meanwhile.
    expect(saysMore(told(9, 0.5), known, 30)).toBe(true);
    expect(saysMore(told(9, 29), [], 1)).toBe(true);
  });
});

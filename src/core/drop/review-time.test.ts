import { describe, expect, it } from 'vitest';
import { reviewExpected } from './review-time';

const handedIn = new Date('2026-11-20T08:00:00Z');
const hours = { least: 12, most: 72 };

describe('when a review is answered', () => {
  it('is within the hours that the site names, as long as few were seen', () => {
    expect(reviewExpected(handedIn, hours, [10, 20])).toEqual({
      from: new Date('2026-11-20T20:00:00Z'),
      to: new Date('2026-11-23T08:00:00Z'),
      by: 'the site’s usual hours',
    });
    expect(reviewExpected(handedIn, undefined, [])).toBeUndefined();
  });

  it('is as long as those before took, without the odd one out', () => {
    const seen = [3600, 3700, 3800, 3900, 4000, 4100, 4200, 4300, 4400, 90_000];
    expect(reviewExpected(handedIn, hours, seen)).toEqual({
      from: new Date(handedIn.getTime() + 3600_000),
      to: new Date(handedIn.getTime() + 4400_000),
      by: 'reviews before',
    });
  });
});

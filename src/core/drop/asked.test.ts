import { describe, expect, it } from 'vitest';
import { askedOnceMore, mayStillArrive } from './asked';

const now = new Date('2026-11-30T10:00:00Z');
const asked = (aim: string, secondsAgo: number) => ({
  aim,
  at: new Date(now.getTime() - secondsAgo * 1000).toISOString(),
  key: `${aim}-${secondsAgo}`,
});

describe('what a site was asked and has not answered', () => {
  it('may still take effect for so long', () => {
    const all = [asked('everyone', 59), asked('private', 60), asked('everyone', 3600)];
    expect(mayStillArrive(all, 60, now)).toEqual([all[0]]);
    expect(mayStillArrive(undefined, 60, now)).toEqual([]);
  });

  it('is kept for each aim with the one before it', () => {
    const before = [asked('everyone', 9), asked('everyone', 5), asked('private', 3)];
    const more = asked('everyone', 0);
    expect(askedOnceMore(before, more)).toEqual([before[1], before[2], more]);
    expect(askedOnceMore([], more)).toEqual([more]);
  });
});

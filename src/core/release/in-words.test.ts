import { describe, expect, it } from 'vitest';
import { fromNow } from './in-words';

const now = new Date('2026-11-27T10:00:00Z');
const inMinutes = (minutes: number) => fromNow(new Date(now.getTime() + minutes * 60_000), now);

describe('how far off an instant is', () => {
  it('is said in the largest unit of which there are two at least', () => {
    expect([0.5, 1.9, 90, 130, 31 * 60, 50 * 60, -4].map(inMinutes)).toEqual([
      'in 30 seconds',
      'in 114 seconds',
      'in 90 minutes',
      'in 2 hours',
      'in 31 hours',
      'in 2 days',
      '4 minutes ago',
    ]);
  });
});

import { describe, expect, it } from 'vitest';
import { isTooNear } from './apart';

const on = (videoId: string, at: string, hoursApart = 6, id = 'yard') => ({ videoId, at, hoursApart, channel: { id } });
const one = on('one', '2026-12-04T12:00:00Z');

describe('a release', () => {
  it.each([
    ['just before as many hours', on('other', '2026-12-04T17:59:59.999Z'), true],
    ['after exactly as many', on('other', '2026-12-04T18:00:00Z'), false],
    ['before, too', on('other', '2026-12-04T06:00:00.001Z'), true],
    ['at the same moment', on('other', '2026-12-04T12:00:00Z', 0), true],
    ['on another channel', on('other', '2026-12-04T12:00:00Z', 6, 'quay'), false],
    ['of the same video', on('one', '2026-12-04T13:00:00Z'), false],
  ])('is too near to one %s: %o is %s', (_, other, near) => {
    expect(isTooNear(one, other)).toBe(near);
  });

  it('is near to none where no hours are asked for', () => {
    expect(isTooNear({ ...one, hoursApart: 0 }, on('other', one.at))).toBe(false);
  });
});

import { describe, expect, it } from 'vitest';
import { SpeedLog } from './speed-log';

describe('the speed of a line over time', () => {
  it('is noted every two seconds', () => {
    const log = new SpeedLog();
    expect(log.note(1000, 10_000)).toHaveLength(1);
    expect(log.note(2000, 11_900)).toBeUndefined();
    expect(log.note(3000, 12_000)?.map(({ bytesPerSecond }) => bytesPerSecond)).toEqual([1000, 3000]);
  });

  it('keeps a day in some hundred points, from the first to the last', () => {
    const log = new SpeedLog();
    let points = log.note(500, 0) ?? [];
    for (let second = 1; second <= 86_400; second += 1) points = log.note(500 + (second % 2), second * 1000) ?? points;
    expect(points.length).toBeLessThanOrEqual(240);
    expect(points.length).toBeGreaterThan(100);
    expect(points[0]?.at).toBe('1970-01-01T00:00:00.000Z');
    expect(Date.parse(points.at(-1)?.at ?? '')).toBeGreaterThan(86_400_000 - 2 * 720_000);
  });

  it('goes on after a transfer that broke off', () => {
    const log = new SpeedLog([{ at: '2026-11-01T00:00:00.000Z', bytesPerSecond: 7 }]);
    expect(log.note(9, 1000)?.map(({ bytesPerSecond }) => bytesPerSecond)).toEqual([7, 9]);
  });
});

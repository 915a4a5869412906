import { describe, expect, it } from 'vitest';
import { binarySize } from './acceptance';
import { lineRate, PaceMeter, spanName } from './transfer-rate';

describe('the pace of a transfer', () => {
  it('looks back over the last seconds only', () => {
    const meter = new PaceMeter(4000);
    for (let second = 0; second <= 10; second += 1)
      meter.note(second < 5 ? second * 10 : 50 + (second - 5) * 100, second * 1000);
    const { bytesPerSecond, secondsLeft } = meter.pace(1550);
    expect(bytesPerSecond).toBeGreaterThan(80);
    expect(secondsLeft).toBe(Math.ceil(1000 / bytesPerSecond));
  });

  it('starts afresh where a new attempt begins further back', () => {
    const meter = new PaceMeter();
    meter.note(500, 0);
    meter.note(100, 1000);
    expect(meter.pace(1000).secondsLeft).toBeUndefined();
    meter.note(300, 2000);
    expect(meter.pace(1000)).toEqual({ bytesPerSecond: 200, secondsLeft: 4 });
  });

  it('is said as people say it', () => {
    // Common practice, no source: a gigabyte takes 400 to 1000 seconds on a line of 8 to 20 Mbit/s.
    expect(lineRate(1e9 / 400)).toBe('20.0 Mbit/s');
    expect(lineRate(1e9 / 1000)).toBe('8.0 Mbit/s');
    expect(lineRate(2000)).toBe('16 kbit/s');
    expect([spanName(0.2), spanName(59), spanName(150), spanName(3600), spanName(7500)]).toEqual([
      '1 s',
      '59 s',
      '3 min',
      '1 h',
      '2 h 5 min',
    ]);
    expect([binarySize(12), binarySize(1536), binarySize(64 * 1024 ** 3)]).toEqual(['12 bytes', '1.5 KiB', '64.0 GiB']);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chunkAfterBreak, chunkAfterSuccess, FIRST_CHUNK_BYTES } from './chunks';

const MIB = 1024 * 1024;

describe('how much one request brings', () => {
  it('is what the line takes in ten seconds, from 8 to 64 MiB', () => {
    // 100 Mbit/s, 30 Mbit/s and 8 Mbit/s: common upload lines; common practice, no source.
    expect([12.5, 3.75, 1].map((mega) => chunkAfterSuccess(mega * 1e6, 1) / MIB)).toEqual([64, 36, 10]);
    expect(chunkAfterSuccess(FIRST_CHUNK_BYTES, 12) / MIB).toBe(8);
  });

  it('gets through within five minutes, however slow the line', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30_000, max: 100_000_000 }), (bytesPerSecond) => {
        expect(chunkAfterSuccess(bytesPerSecond, 1) / bytesPerSecond).toBeLessThan(60);
      }),
    );
  });

  it('is halved each time that it breaks, to a mebibyte', () => {
    let size = FIRST_CHUNK_BYTES;
    const sizes = [1, 2, 3, 4, 5].map(() => {
      size = chunkAfterBreak(size);
      return size / MIB;
    });
    expect(sizes).toEqual([4, 2, 1, 1, 1]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { proofRanges, sampleRanges } from './file-samples';

const size = fc.integer({ min: 0, max: 60 * 1024 ** 3 });

describe('what a file is known by', () => {
  it('takes the start, the end and parts all along, never more than 6 MiB', () => {
    fc.assert(
      fc.property(size, (bytes) => {
        const ranges = sampleRanges(bytes);
        expect(ranges[0]?.start ?? 0).toBe(0);
        expect(ranges.at(-1)?.end ?? 0).toBe(bytes);
        expect(ranges.reduce((sum, { start, end }) => sum + end - start, 0)).toBeLessThanOrEqual(6 * 1024 ** 2);
        for (const { start, end } of ranges) expect(start >= 0 && end > start && end <= bytes).toBe(true);
      }),
    );
  });

  it('leaves no gap longer than a ninetieth of the file', () => {
    const ranges = sampleRanges(9e9);
    const gaps = ranges.slice(1).map(({ start }, index) => start - (ranges[index]?.end ?? 0));
    expect(Math.max(...gaps)).toBeLessThan(1e8);
  });
});

describe('the parts of a proof', () => {
  it('are all bytes, each once', () => {
    fc.assert(
      fc.property(size, (bytes) => {
        let at = 0;
        for (const { start, end } of proofRanges(bytes)) {
          expect(start).toBe(at);
          at = end;
        }
        expect(at).toBe(bytes);
      }),
    );
  });
});

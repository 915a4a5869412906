import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { describe, expect, it } from 'vitest';
import { throttle } from './throttle';

/** Passes bytes on, and adds up how long it waited. */
async function passed(bytes: Buffer, rate: () => number | undefined) {
  let waited = 0;
  const wait = async (milliseconds: number) => {
    waited += milliseconds;
  };
  const out = await buffer(
    Readable.from([bytes.subarray(0, 300_000), bytes.subarray(300_000)]).pipe(throttle(rate, wait)),
  );
  return { out, seconds: waited / 1000 };
}
const bytes = Buffer.alloc(500_000, 'kettle');

describe('a limit of the line', () => {
  it('lets bytes through unchanged, as fast as it says', async () => {
    const { out, seconds } = await passed(bytes, () => 250_000);
    expect(out.equals(bytes)).toBe(true);
    expect(seconds).toBeCloseTo(2);
  });

  it('waits for nothing where there is none, and takes hold in the middle', async () => {
    expect((await passed(bytes, () => undefined)).seconds).toBe(0);
    let asked = 0;
    const { out, seconds } = await passed(bytes, () => {
      asked += 1;
      return asked <= 4 ? 100_000 : undefined;
    });
    expect(out).toHaveLength(500_000);
    expect(seconds).toBeCloseTo(0.4);
  });
});

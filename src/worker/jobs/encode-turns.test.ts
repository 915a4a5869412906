import { describe, expect, it } from 'vitest';
import { countInHand, countOnHold, ENCODERS_AT_ONCE, freeTurns } from './encode-turns';

describe('the turns of encoders', () => {
  it('are taken from when a file is claimed, so that another worker has the next one', async () => {
    const ends: (() => void)[] = [];
    const inHand = Array.from({ length: ENCODERS_AT_ONCE }, () =>
      countInHand(() => new Promise((resolve) => ends.push(resolve))),
    );
    expect(freeTurns()).toBe(0);
    // One on hold lets another begin, and no more once it goes on.
    countOnHold(true);
    expect(freeTurns()).toBe(1);
    const other = countInHand(() => new Promise((resolve) => ends.push(resolve)));
    expect(freeTurns()).toBe(0);
    countOnHold(false);
    expect(freeTurns()).toBe(0);
    for (const end of ends) end();
    await Promise.all([...inHand, other]);
    expect(freeTurns()).toBe(ENCODERS_AT_ONCE);
  });

  it('are free again where the work goes wrong', async () => {
    const failed = countInHand(() => Promise.reject(new Error('no')));
    await expect(failed).rejects.toThrow('no');
    expect(freeTurns()).toBe(ENCODERS_AT_ONCE);
  });
});

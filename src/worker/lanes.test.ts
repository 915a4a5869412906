import { setTimeout as pause } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { type LaneClass, runLanes } from './lanes';

/** Lanes over a list of pieces; each is worked until it is let go. */
function lanesOver(count: number, atOnce: number) {
  const waiting = Array.from({ length: count }, (_, n) => n);
  const letGo = new Map<number, () => void>();
  const ended: number[] = [];
  let [asked, trouble] = [0, 0];
  const lanes: LaneClass<number> = {
    name: 'test',
    atOnce,
    async take(most) {
      asked += 1;
      if (trouble > 0) {
        trouble -= 1;
        throw new Error('the database is away');
      }
      return waiting.splice(0, most);
    },
    async work(piece) {
      await new Promise<void>((resolve) => letGo.set(piece, resolve));
      ended.push(piece);
      if (piece === 1) throw new Error('this one stumbles');
    },
  };
  const ending = new AbortController();
  const running = runLanes(lanes, ending.signal);
  return {
    letGo,
    ended,
    running,
    asked: () => asked,
    stumble: () => {
      trouble = 1;
    },
    end: async () => {
      ending.abort();
      await running;
    },
  };
}

describe('lanes', () => {
  it('hold no more than they may, and take the next as soon as one is free', async () => {
    const lanes = lanesOver(5, 2);
    await expect.poll(() => [...lanes.letGo.keys()]).toEqual([0, 1]);
    await pause(400);
    expect([...lanes.letGo.keys()]).toEqual([0, 1]);
    lanes.letGo.get(0)?.();
    await expect.poll(() => [...lanes.letGo.keys()]).toEqual([0, 1, 2]);
    await lanes.end();
  });

  it('go on where one piece stumbles', async () => {
    const lanes = lanesOver(3, 1);
    for (const piece of [0, 1, 2]) {
      await expect.poll(() => lanes.letGo.has(piece)).toBe(true);
      lanes.letGo.get(piece)?.();
    }
    await expect.poll(() => lanes.ended).toEqual([0, 1, 2]);
    await lanes.end();
  });

  it('ask seldom where there is nothing to do', async () => {
    const lanes = lanesOver(0, 8);
    await pause(1000);
    expect(lanes.asked()).toBeLessThan(6);
    await lanes.end();
  });

  it('ask again where nothing could be taken', async () => {
    const lanes = lanesOver(1, 1);
    lanes.stumble();
    await expect.poll(() => lanes.letGo.has(0), { timeout: 4000 }).toBe(true);
    await lanes.end();
  });
});

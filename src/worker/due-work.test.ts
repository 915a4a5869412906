import { describe, expect, it } from 'vitest';
import type { Due } from '@/store/queue/due';
import { DueWork } from './due-work';

const dueNow = (): Due => ({ states: new Set(['held'] as const), kinds: new Set(['read'] as const) });

/** The question as it is put, with a clock set by hand. */
function asking(answer: () => Promise<Due> = async () => dueNow()) {
  const at = { asked: 0, now: 1000 };
  const due = new DueWork(
    () => {
      at.asked += 1;
      return answer();
    },
    () => at.now,
  );
  return { due, at };
}

describe('what is due', () => {
  it('is asked once for all who ask at a time', async () => {
    const { due, at } = asking();
    const answers = await Promise.all([
      due.has('states', ['held', 'opening']),
      due.has('states', ['landing']),
      due.has('kinds', ['read']),
      due.has('kinds', ['encode']),
    ]);
    expect(answers).toEqual([true, false, true, false]);
    expect(at.asked).toBe(1);
  });

  it('is asked anew a moment later, and where work has ended', async () => {
    const { due, at } = asking();
    await due.has('states', ['held']);
    at.now += 149;
    await due.has('states', ['held']);
    expect(at.asked).toBe(1);
    at.now += 1;
    await due.has('states', ['held']);
    expect(at.asked).toBe(2);
    let heard = 0;
    due.hear(() => {
      heard += 1;
    });
    due.forget();
    await due.has('states', ['held']);
    expect([at.asked, heard]).toEqual([3, 1]);
  });

  it('is asked anew where the question failed', async () => {
    let away = true;
    const { due, at } = asking(async () => {
      if (away) throw new Error('the database is away');
      return dueNow();
    });
    await expect(due.has('states', ['held'])).rejects.toThrow('the database is away');
    away = false;
    expect(await due.has('states', ['held'])).toBe(true);
    expect(at.asked).toBe(2);
  });
});

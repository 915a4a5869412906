import { describe, expect, it } from 'vitest';
import { AllowanceSpent, SiteError, type SiteLook } from '@/sites/contract';
import { lookTogether } from './look-together';
import { sessionOf } from './session';

const session = sessionOf({ access: '', refresh: '', expiresAt: 0 });
const ids = (count: number) => Array.from({ length: count }, (_, at) => `v${at}`);
const look = (id: string) => ({ shown: { title: id } }) as unknown as SiteLook;

/** A site that fails wherever one of these is asked for, and what it was asked. */
function siteThatFailsWith(bad: readonly string[], error: Error = new SiteError('unreachable', 'no JSON')) {
  const asked: number[] = [];
  const lookAtMany = {
    atOnce: 50,
    async look(_: unknown, wanted: readonly string[]) {
      asked.push(wanted.length);
      if (wanted.some((id) => bad.includes(id))) throw error;
      return new Map(wanted.map((id) => [id, look(id)]));
    },
  };
  return { asked, told: (count: number) => lookTogether(lookAtMany, session, ids(count)) };
}

describe('a look at many', () => {
  it('is one request where the site can tell of all', async () => {
    const { told, asked } = siteThatFailsWith([]);
    expect([...(await told(50)).looks.keys()]).toEqual(ids(50));
    expect(asked).toEqual([50]);
  });

  it.each(ids(9))('finds the one that it cannot tell of, and tells of all others: %s', async (bad) => {
    const { told, asked } = siteThatFailsWith([bad]);
    const { looks, atFault, requests } = await told(9);
    expect(atFault).toBe(bad);
    expect(new Set(looks.keys())).toEqual(new Set(ids(9).filter((id) => id !== bad)));
    expect(requests).toBe(asked.length);
    // Nine, then two halves of it, of five, of three and of two at the most.
    expect(requests).toBeLessThanOrEqual(9);
  });

  it('asks three times at the most where it is the site that cannot', async () => {
    const { told, asked } = siteThatFailsWith(ids(50));
    await expect(told(50)).rejects.toMatchObject({ kind: 'unreachable' });
    expect(asked).toEqual([50, 25, 25]);
  });

  it('says so of one alone, and where no more may be asked', async () => {
    await expect(siteThatFailsWith(['v0']).told(1)).rejects.toMatchObject({ kind: 'unreachable' });
    const spent = siteThatFailsWith(['v1'], new AllowanceSpent(7));
    await expect(spent.told(4)).rejects.toMatchObject({ seconds: 7 });
    expect(spent.asked).toEqual([4]);
  });

  it('of none asks nothing', async () => {
    const { told, asked } = siteThatFailsWith([]);
    expect(await told(0)).toMatchObject({ requests: 0, atFault: undefined });
    expect(asked).toEqual([]);
  });

  it('asks again, and finds none at fault, where it could not tell for a moment', async () => {
    let fails = 1;
    const lookAtMany = {
      atOnce: 50,
      async look(_: unknown, wanted: readonly string[]) {
        fails -= 1;
        if (fails >= 0) throw new SiteError('busy', 'not now');
        return new Map(wanted.map((id) => [id, look(id)]));
      },
    };
    const { looks, atFault } = await lookTogether(lookAtMany, session, ids(4));
    expect([atFault, looks.size]).toEqual([undefined, 4]);
  });
});

import { afterEach, describe, expect, it } from 'vitest';
import { sendVideo } from '@/desk/drop/send';
import { askOfMany } from '@/desk/many/ask-many';
import { sessionFor } from '@/desk/site/session';
import { lookAtChannels } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { keepAllowances } from '@/store/site/allowances';
import { makeClip } from '../setup/clips';
import { allowPlentyAt } from '../setup/control';
import { addressOf, allowAt, bringFile, onlyDrop, untilSheet, untilState, yardSession } from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker();
const at = () => `${addressOf('fieldgate')}/control/allowance`;

const allow = (requests: number, seconds: number, told = true) => allowAt('fieldgate', requests, seconds, told);

/** Seconds. */
const SPAN = 2;
const refused = async () => ((await (await fetch(at())).json()) as { refused: number }).refused;

async function fieldgateAccount(): Promise<string> {
  await yardSession('fieldgate');
  const { sites } = await lookAtChannels();
  return sites.find(({ id }) => id === 'fieldgate')?.accounts.find(({ state }) => state === 'connected')?.id ?? '';
}

afterEach(async () => {
  await allowPlentyAt(addressOf('fieldgate'));
  await database()('allowances').delete();
});

async function sent(...names: string[]): Promise<string[]> {
  await yardSession('fieldgate');
  const clip = makeClip({ name: 'allowance.mp4', seconds: 2 });
  const ids: string[] = [];
  for (const name of names) ids.push(await bringFile(clip, 'Marrow Quay Films', name));
  for (const id of ids) await untilSheet(id, ({ cut }) => cut?.state === 'ready');
  await Promise.all(ids.map((id) => sendVideo(id)));
  return ids;
}

describe('what a site lets an account ask', () => {
  it('is counted ahead: four videos at once get there, and the site hardly has to refuse one', async () => {
    await allow(15, 2);
    const ids = await sent('few-0.mp4', 'few-1.mp4', 'few-2.mp4', 'few-3.mp4');
    for (const id of ids) await untilState(id, 'live');
    // A few may be on their way as a span begins; of requests that nobody counts it refuses some eighteen here.
    expect(await refused()).toBeLessThan(4);
  });

  it('is found out by a refusal where the site does not tell it; then nobody asks until it says', async () => {
    await allow(8, SPAN, false);
    const since = Date.now();
    const ids = await sent('untold-0.mp4', 'untold-1.mp4', 'untold-2.mp4', 'untold-3.mp4');
    for (const id of ids) await untilState(id, 'live');
    expect(await refused()).toBeGreaterThan(0);
    // At most those that were asking at the same moment in each span.
    const spans = (Date.now() - since) / 1000 / SPAN + 1;
    expect(await refused()).toBeLessThanOrEqual(ids.length * spans);
  });

  it('goes to what a person has sent before what an act on many has', async () => {
    const clip = makeClip({ name: 'allowance.mp4', seconds: 2 });
    const account = await fieldgateAccount();
    const [one = '', many = ''] = [await heldBack('one.mp4'), await heldBack('of-many.mp4')];
    async function heldBack(name: string): Promise<string> {
      const id = await bringFile(clip, 'Marrow Quay Films', name);
      await untilSheet(id, ({ cut }) => cut?.state === 'ready');
      return id;
    }
    // By hand: an act leaves 400 of 1,000, a look 350.
    await keepAllowances(database(), account, [{ policy: 'of the day', remaining: 395, quota: 1000, seconds: 3600 }]);
    await askOfMany({ ids: [many], act: { do: 'send' } });
    await untilSheet(many, (sheet) => /takes no more requests/.test(onlyDrop(sheet).waiting ?? ''));
    await sendVideo(one);
    await untilState(one, 'live');
    expect(onlyDrop(await lookAtSheet(many)).state).toBe('landing');
    // Sent on by a person, it waits no longer.
    await database()('drops').where({ videoId: many }).update({ amongMany: false, nextTryAt: new Date() });
    await untilState(many, 'live');
  });

  it('is kept for what somebody waits for, over all workers', async () => {
    const account = await fieldgateAccount();
    const told = (remaining: number, seconds = 30) =>
      keepAllowances(database(), account, [{ policy: 'hour', remaining, quota: 20, seconds }]);
    const ask = (use: 'look' | 'work' | 'urgent') => sessionFor(account, use).accessToken();
    await told(6);
    await expect(ask('look')).rejects.toMatchObject({ name: 'AllowanceSpent', kind: 'busy' });
    await ask('work');
    await ask('work');
    await expect(ask('work')).rejects.toMatchObject({ kind: 'busy', retryAfter: expect.any(Number) });
    for (let left = 4; left > 0; left -= 1) await ask('urgent');
    await expect(ask('urgent')).rejects.toThrow(/takes no more requests from this account for \d+ s/);
    // An answer that was given earlier and is heard late brings nothing back; one of the next span does.
    await told(20);
    await expect(ask('urgent')).rejects.toMatchObject({ kind: 'busy' });
    await told(20, 90);
    await ask('look');
  });
});

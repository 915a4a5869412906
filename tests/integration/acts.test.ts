import { afterAll, describe, expect, it } from 'vitest';
import { askOfMany, goOnMany, lookAtManyActs, pauseMany, stopMany } from '@/desk/many/ask-many';
import { doMany } from '@/desk/many/do-many';
import { closeDatabase, database, transaction } from '@/store/database';
import { beginResult, endResult } from '@/store/record/many-acts';
import { makeVideo, videoById } from '@/store/record/videos';
import { kettle } from '../setup/command';
import { newVideo } from '../setup/new-video';

afterAll(closeDatabase);

const run = (...args: string[]) => kettle(args);
const signal = new AbortController().signal;
const videos = (count: number) =>
  Promise.all(Array.from({ length: count }, (_, n) => makeVideo(database(), newVideo(`Boat ${n}`))));
const licenceOf = async (id: string) => (await videoById(database(), id))?.own.licence;
const asked = async (ids: string[], value: string) =>
  (await askOfMany({ ids, act: { do: 'set', field: 'licence', value } })).id;
const viewOf = async (id: string) => (await lookAtManyActs()).find((each) => each.id === id);

describe('an act on many', () => {
  it('rests where it is paused, with the one in hand ended, and goes on with what is left', async () => {
    // So many that some are left, however late the pause comes.
    const ids = await videos(40);
    const act = await asked(ids, 'creative commons');
    const over = await doMany(act, (done) => void (done === 1 && pauseMany(act)), signal).then(async (ended) => {
      await expect.poll(async () => (await viewOf(act))?.state).toBe('paused');
      return ended;
    });
    expect(over).toBe(true);
    const { done = 0, mayStop } = (await viewOf(act)) ?? {};
    expect(done).toBeGreaterThanOrEqual(1);
    expect(done).toBeLessThan(40);
    expect(mayStop).toBe(true);
    await expect(pauseMany(act)).rejects.toThrow('cannot be paused');
    await doMany(act, () => undefined, signal);
    expect((await viewOf(act))?.done).toBe(done);
    await goOnMany(act);
    await expect(goOnMany(act)).rejects.toThrow('not paused');
    await doMany(act, () => undefined, signal);
    expect(await viewOf(act)).toMatchObject({ state: 'done', done: 40, changed: 40 });
    expect(await Promise.all(ids.map(licenceOf))).toEqual(Array(40).fill('creative commons'));
  });

  it('never has a video in hand that another has, though it was paused and goes on', async () => {
    const ids = await videos(2);
    const [first = '', second = ''] = ids;
    const earlier = await asked(ids, 'creative commons');
    await pauseMany(earlier);
    // A later one waits for none that rests.
    const later = await asked(ids, 'all rights reserved');
    expect(await transaction((trx) => beginResult(trx, later, first, ''))).toBe(true);
    await goOnMany(earlier);
    expect(await doMany(earlier, () => undefined, signal)).toBe(false);
    expect(await licenceOf(first)).toBeUndefined();
    expect(await transaction((trx) => beginResult(trx, earlier, second, ''))).toBe(true);
    await endResult(database(), later, { videoId: first, title: '', changed: false, why: undefined });
    expect(await doMany(earlier, () => undefined, signal)).toBe(true);
    expect(await Promise.all(ids.map(licenceOf))).toEqual(['creative commons', 'creative commons']);
  });

  it('that rests can be stopped, and holds nothing', async () => {
    const [id = ''] = await videos(1);
    const act = await asked([id], 'creative commons');
    expect(await transaction((trx) => beginResult(trx, act, id, ''))).toBe(true);
    await pauseMany(act);
    // However many come after it, it is to be found.
    for (let n = 0; n < 6; n += 1) await stopMany(await asked([id], 'creative commons'));
    expect((await viewOf(act))?.state).toBe('paused');
    await stopMany(act);
    expect((await viewOf(act))?.state ?? 'stopped').toBe('stopped');
    const next = await asked([id], 'creative commons');
    await doMany(next, () => undefined, signal);
    expect(await licenceOf(id)).toBe('creative commons');
  });

  it('is seen, paused, let go on, stopped and taken back from the command line', async () => {
    const ids = await videos(2);
    const act = await asked(ids, 'creative commons');
    expect((await run('acts')).out).toContain(`${act}  Setting licence, waiting: 0 of 2`);
    expect((await run('acts', 'pause', act)).status).toBe(0);
    expect(JSON.parse((await run('acts', '--json')).out)[0]).toMatchObject({ id: act, state: 'paused' });
    expect((await run('acts', 'go', act)).status).toBe(0);
    await doMany(act, () => undefined, signal);
    expect((await run('acts', 'undo', act)).status).toBe(0);
    await doMany(act, () => undefined, signal);
    expect((await run('acts')).out).toContain('Set licence; undone: 2, changed since: 0');
    expect(await run('acts', 'stop', act)).toMatchObject({ status: 1, said: expect.stringContaining('over already') });
    expect((await run('acts', 'hurry', act)).said).toContain('Say pause, go, stop or undo');
  });
});

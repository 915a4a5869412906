import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { tidyUp } from '@/desk/house/tidy-up';
import { editVideo } from '@/desk/video/edit-video';
import { inSeconds } from '@/store/clock';
import { closeDatabase, database } from '@/store/database';
import { newId } from '@/store/ids';
import { makeVideo } from '@/store/record/videos';
import { connectedChannels } from '../setup/desk';
import { manyVideos } from '../setup/many-videos';
import { newVideo } from '../setup/new-video';

// What grows with every day is kept for a while, and then goes; what still says something stays.

const DAY = 24 * 3600;
let videoId: string;
let dropId: string;

beforeAll(async () => {
  const channels = [...(await connectedChannels()).values()];
  [videoId = ''] = await manyVideos(1, channels.slice(0, 1), { states: ['live'] });
  dropId = (await database()('drops').where({ videoId }).first('id')).id;
});
afterAll(closeDatabase);

const ago = (days: number) => inSeconds(database(), -days * DAY);
/** So many days ago the rows of a table were written that are left. */
async function daysLeft(table: string, where: Record<string, unknown>, column = 'at'): Promise<number[]> {
  const rows: { at: Date }[] = await database()(table).where(where).select({ at: column }).orderBy(column);
  return rows.map(({ at }) => Math.round((Date.now() - at.getTime()) / 1000 / DAY));
}

describe('what grows', () => {
  it('goes by its age: changes, waits, notices, requests', async () => {
    const db = database();
    const change = { field: 'title', before: '""', after: '"x"', who: 'person' };
    const { who: _, ...row } = change;
    for (const [state, days] of [
      ...[29, 31].map((days) => ['dropped', days] as const),
      ...[364, 366].flatMap((days) => [['made', days] as const, ['undone', days] as const]),
    ])
      await db('changes').insert({ ...row, subject: `old ${state}`, state, at: ago(days), actor: 'person' });
    for (const kind of ['waits', 'landed'])
      for (const days of [29, 31])
        await db('dropEvents').insert({ dropId, kind, says: 'old', at: ago(days), actor: 'worker' });
    for (const days of [89, 91]) {
      await db('siteRequests').insert({
        ...{ dropId, method: 'GET', purpose: 'look', status: 200, milliseconds: 5, times: 1 },
        at: ago(days),
      });
    }
    await tidyUp();
    expect(await daysLeft('changes', { subject: 'old dropped' })).toEqual([29]);
    expect(await daysLeft('changes', { subject: 'old made' })).toEqual([364]);
    expect(await daysLeft('changes', { subject: 'old undone' })).toEqual([364]);
    expect(await daysLeft('dropEvents', { dropId, kind: 'waits' })).toEqual([29]);
    expect(await daysLeft('dropEvents', { dropId, says: 'old', kind: 'landed' })).toEqual([31, 29]);
    expect(await daysLeft('siteRequests', { dropId })).toEqual([89]);
  });

  it('goes where it would be asked for anew; what keeps work from being done twice stays', async () => {
    const job = (kind: string, state: string, days: number) => ({
      ...{ id: newId(), kind, subject: `${kind} ${state} ${days}`, state, priority: 0, attempts: 0, putOffs: 0 },
      ...{ askedAt: ago(days), nextTryAt: ago(-1), endedAt: state === 'waiting' ? null : ago(days) },
    });
    const jobs = [
      ...[job('give', 'done', 29), job('give', 'done', 31), job('give', 'set aside', 31), job('give', 'waiting', 31)],
      ...[job('many', 'done', 31), job('read', 'done', 400), job('measure', 'done', 400)],
    ];
    await database()('jobs').insert(jobs);
    await tidyUp();
    const left: string[] = await database()('jobs')
      .whereIn(
        'id',
        jobs.map(({ id }) => id),
      )
      .pluck('subject');
    expect(left.sort()).toEqual(
      ['give done 29', 'give set aside 31', 'give waiting 31', 'measure done 400', 'read done 400'].sort(),
    );
    await database()('jobs').whereIn('subject', left).delete();
  });

  it('goes in steps, however much there is', async () => {
    const db = database();
    const wait = { dropId, kind: 'waits', says: 'many', actor: 'worker' };
    await db('dropEvents').insert(Array.from({ length: 2500 }, () => ({ ...wait, at: ago(40) })));
    await tidyUp();
    expect(await daysLeft('dropEvents', { says: 'many' })).toEqual([]);
  });
});

describe('a habit of deleting files', () => {
  it('is looked for where a video or its series may have it, and nowhere else', async () => {
    const { videosOfHabit } = await import('@/store/files/disk-use');
    const ids: string[] = [];
    for (const own of [{ deleteFile: true }, { deleteFile: false }, {}]) {
      const id = await makeVideo(database(), newVideo('habit'));
      await editVideo(id, own);
      ids.push(id);
    }
    const found: string[] = await videosOfHabit(database(), { field: 'deleteFile', seriesIds: [] }).pluck('id');
    expect(ids.filter((id) => found.includes(id))).toEqual(ids.slice(0, 1));
  });
});

import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BOARD_GROUPS, type BoardFacts, boardGroup, stateRank } from '@/core/drop';
import { fraction } from '@/core/time';
import { editDefaults } from '@/desk/defaults/defaults';
import { editSeries, newSeries } from '@/desk/defaults/series';
import { forgetBoardView, keepBoardView } from '@/desk/house/board-views';
import { lookAtBoard, lookAtBoardCounts, lookAtMissing } from '@/desk/views/look-at-board';
import type { BoardRow } from '@/desk/views/views';
import { closeDatabase, database } from '@/store/database';
import { keepMatches } from '@/store/drop/rights-matches';
import { newId } from '@/store/ids';
import { connectedChannels } from '../setup/desk';
import { manyVideos } from '../setup/many-videos';

let channels: string[];
beforeAll(async () => {
  channels = [...(await connectedChannels()).values()];
});
afterAll(closeDatabase);

const total = async (ask: object = {}) =>
  Object.values((await lookAtBoardCounts(ask)).counts).reduce((sum, count) => sum + count, 0);

/** Every row of a choice, page by page. */
async function allPages(ask: Record<string, unknown>): Promise<BoardRow[]> {
  const rows: BoardRow[] = [];
  for (;;) {
    const last = rows.at(-1);
    const after = last && JSON.stringify({ id: last.videoId, group: last.group, title: last.title });
    const page = await lookAtBoard({ ...ask, ...(after ? { after } : {}) });
    rows.push(...page.rows);
    if (!page.more) return rows;
  }
}

describe('the group of a video on the Board', () => {
  const minutesAgo = (minutes: number) => new Date(Date.now() - minutes * 60_000);
  const CUTS: [BoardFacts['cut'], Record<string, unknown> | undefined][] = [
    ['none', undefined],
    ['arriving', { state: 'arriving', heardAt: minutesAgo(1) }],
    ['stalled', { state: 'arriving', heardAt: minutesAgo(3) }],
    ['reading', { state: 'reading' }],
    ['set aside', { state: 'reading' }],
    ['ready', { state: 'ready' }],
    ['refused', { state: 'refused', refusal: 'no video' }],
  ];
  const DROPS: BoardFacts['drops'][] = [
    ['live', 'matched'],
    ...[[], ['draft'], ['removed'], ['held'], ['live'], ['snag'], ['landing'], ['overdue'], ['matched']],
    ...[
      ['live', 'snag'],
      ['held', 'landing'],
      ['held', 'draft'],
      ['live', 'held'],
      ['draft', 'live'],
      ['removed', 'draft'],
    ],
  ] as BoardFacts['drops'][];

  it('is the same in the database as in the core, whatever the file and the drops stand at', async () => {
    const cases = CUTS.flatMap(([cut, row]) => DROPS.map((drops) => ({ cut, row, drops })));
    const ids = await manyVideos(cases.length, []);
    const db = database();
    await db('cuts').whereIn('videoId', ids).delete();
    for (const [n, { cut, row, drops }] of cases.entries()) {
      const videoId = ids[n] ?? '';
      const id = newId();
      const at = new Date();
      if (row) {
        const file = { fileName: `case-${n}.mp4`, fileKey: `none-${id}`, size: 1, received: 0, createdAt: at };
        await db('cuts').insert({ id, videoId, ordinal: 1, ...file, ...row });
      }
      if (cut === 'set aside') {
        const job = { kind: 'read', subject: id, state: 'set aside', askedAt: at, nextTryAt: at };
        await db('jobs').insert({ id: newId(), ...job });
      }
      for (const [place, state] of drops.entries()) {
        const overdue = { state: 'landing', putOffBy: 'busy', putOffSince: minutesAgo(16) };
        const far = new Date(Date.now() + 1e9);
        const dropId = newId();
        await db('drops').insert({
          ...{ id: dropId, videoId, channelId: channels[place], createdAt: at, updatedAt: at, nextTryAt: far },
          ...(state === 'overdue' ? overdue : { state: state === 'matched' ? 'live' : state, siteVideoId: 'now' }),
        });
        // What was found in a video that is not there any more waits for nobody.
        const owned = { owner: 'O', work: 'W', asks: 'income' as const, countries: [], state: 'open' as const };
        const found = { ...owned, id: 'm', from: fraction(0), to: fraction(1) };
        for (const siteVideoId of state === 'matched' ? ['now'] : ['before']) {
          await keepMatches(db, { id: dropId, siteVideoId }, [found]);
        }
      }
    }
    const rows = new Map((await lookAtBoard({ ids, most: ids.length })).rows.map((row) => [row.videoId, row.group]));
    const found = cases.map(({ cut, drops }, n) => [cut, drops.join(), rows.get(ids[n] ?? '')]);
    expect(found).toEqual(cases.map(({ cut, drops }) => [cut, drops.join(), boardGroup({ cut, drops })]));
    await db('videos').whereIn('id', ids).delete();
  });
});

describe('the Board in parts', () => {
  it.each(['needs', 'newest', 'title'] as const)('has each video once, in its order: %s', async (order) => {
    const name = `Paged ${order}`;
    const seriesId = await newSeries({ name });
    const ids = await manyVideos(55, channels, { seriesId });
    const rows = await allPages({ seriesId, order, most: 20 });
    expect(rows.map(({ videoId }) => videoId).sort()).toEqual([...ids].sort());
    const ranks = rows.map(({ group }) => BOARD_GROUPS.indexOf(group));
    if (order === 'needs') expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    if (order === 'newest') expect(rows.map(({ videoId }) => videoId)).toEqual([...ids].sort().reverse());
    if (order === 'title') expect(rows[0]?.title).toBe('Plank 0 of the long boat');
    const { counts, needYou } = await lookAtBoardCounts({ seriesId });
    // What the Board says first is of all videos, whatever is looked for.
    expect(needYou).toBe((await lookAtBoardCounts()).counts['needs you']);
    expect(needYou).toBeGreaterThanOrEqual(counts['needs you']);
    for (const group of BOARD_GROUPS) {
      expect(counts[group]).toBe(rows.filter((row) => row.group === group).length);
      expect((await allPages({ seriesId, order, group, most: 7 })).every((row) => row.group === group)).toBe(true);
    }
  });

  it('is found by title, file, link and series; signs of a pattern stand for themselves', async () => {
    const seriesId = await newSeries({ name: 'Kelp and tar' });
    const [one = '', two = ''] = await manyVideos(2, channels.slice(0, 1), { from: 700, states: ['live'], seriesId });
    const db = database();
    await db('videos').where({ id: one }).update({ title: '100 % oak_board \\ “keel”' });
    await db('cuts').where({ videoId: two }).update({ fileName: 'garboard_strake.mp4' });
    const found = async (find: string) => (await lookAtBoard({ find, seriesId })).rows.map(({ videoId }) => videoId);
    for (const find of ['100 %', 'OAK_BOARD', '\\ “keel”', `/watch/${one}`])
      expect([find, await found(find)]).toEqual([find, [one]]);
    expect(await found('strake')).toEqual([two]);
    expect(await found('kelp AND tar')).toHaveLength(2);
    for (const find of ['%%', 'oak-board', '_x_', 'nothing at all']) expect(await found(find)).toEqual([]);
    expect(await total({ find: 'garboard' })).toBe(1);
  });

  it('is sorted by how the drops of one channel stand, each video once', async () => {
    const seriesId = await newSeries({ name: 'By channel' });
    const [first = '', second = ''] = channels;
    const states = ['live', 'draft', 'snag', 'held', 'landing', 'removed'];
    await manyVideos(24, [first], { seriesId, states });
    await manyVideos(3, [second], { seriesId });
    const rows: BoardRow[] = [];
    const rank = (row: BoardRow) => stateRank(row.drops.find(({ channelId }) => channelId === first)?.state);
    for (let more = true; more; ) {
      const last = rows.at(-1);
      const place = last && { id: last.videoId, group: last.group, title: last.title, stateRank: rank(last) };
      const after = place ? { after: JSON.stringify(place) } : {};
      const page = await lookAtBoard({ seriesId, order: 'channel', by: first, most: 5, ...after });
      rows.push(...page.rows);
      more = page.more;
    }
    expect(new Set(rows.map(({ videoId }) => videoId)).size).toBe(27);
    expect(rows.map(rank)).toEqual(rows.map(rank).sort((a, b) => a - b));
    expect(rank(rows.at(-1) as BoardRow)).toBe(6);
  });

  it('is of what is meant for everyone, by link or nobody, whichever layer says so', async () => {
    const seriesId = await newSeries({ name: 'By privacy' });
    const [first = ''] = channels;
    const [byVideo = '', byDrop = '', bySeries = ''] = await manyVideos(3, [first], { seriesId, states: ['draft'] });
    const db = database();
    await db('videos').whereIn('id', [byDrop, bySeries]).update({ own: '{}' });
    await db('drops')
      .where({ videoId: byDrop })
      .update({ own: JSON.stringify({ privacy: 'link' }) });
    const found = async (privacy: string) =>
      (await lookAtBoard({ seriesId, privacy })).rows.map(({ videoId }) => videoId);
    expect(await found('everyone')).toEqual([byVideo]);
    expect(await found('link')).toEqual([byDrop]);
    expect(await found('private')).toEqual([bySeries]);
    await editDefaults({ layer: 'series', owner: seriesId }, { privacy: 'everyone' });
    expect(new Set(await found('everyone'))).toEqual(new Set([byVideo, bySeries]));
    expect(await total({ seriesId, privacy: 'link' })).toBe(1);
  });

  it('is of what lacks something, and of the last days', async () => {
    const seriesId = await newSeries({ name: 'Lacking' });
    const [full = '', bare = ''] = await manyVideos(2, channels.slice(0, 1), { seriesId });
    const db = database();
    await db('videos').where({ id: full }).update({ summary: 'Words' });
    await db('drops').where({ videoId: bare }).delete();
    await db('videos')
      .where({ id: bare })
      .update({ createdAt: new Date(Date.now() - 10 * 86_400_000) });
    const found = async (ask: object) => (await lookAtBoard({ seriesId, ...ask })).rows.map(({ videoId }) => videoId);
    expect(await found({ lacks: 'summary' })).toEqual([bare]);
    expect(await found({ lacks: 'channel' })).toEqual([bare]);
    for (const lacks of ['picture', 'captions']) expect(await found({ lacks })).toHaveLength(2);
    expect(await found({ lacks: 'series' })).toEqual([]);
    expect(await found({ days: 7 })).toEqual([full]);
    expect(await found({ days: '30' })).toHaveLength(2);
    for (const ask of [{ lacks: 'wit' }, { days: 0 }, { privacy: 'all' }, { order: 'channel', by: 'x' }])
      await expect(lookAtBoard(ask)).rejects.toThrow();
  });

  it('is kept under names, of which each is there once', async () => {
    await expect(keepBoardView({ name: ' ', query: '' })).rejects.toThrow('Name the view first');
    await keepBoardView({ name: 'This week', query: 'days=7' });
    const views = await keepBoardView({ name: 'This week', query: 'days=7&lacks=picture' });
    expect(views.filter(({ name }) => name === 'This week')).toEqual([
      { name: 'This week', query: 'days=7&lacks=picture' },
    ]);
    expect((await forgetBoardView({ name: 'This week' })).map(({ name }) => name)).not.toContain('This week');
  });

  it('is of one channel, and of what is named', async () => {
    const seriesId = await newSeries({ name: 'One channel' });
    const [first = ''] = channels;
    const [id = ''] = await manyVideos(1, [first], { seriesId, states: ['draft'] });
    await manyVideos(1, channels.slice(1, 2), { seriesId });
    expect((await lookAtBoard({ seriesId, channelId: first })).rows.map(({ videoId }) => videoId)).toEqual([id]);
    expect(await total({ seriesId, channelId: first })).toBe(1);
    expect((await lookAtBoard({ ids: [id, newId()] })).rows).toHaveLength(1);
    const missing = await lookAtMissing({ ids: [id] });
    expect(Object.values(missing[id] ?? {})).toEqual([expect.any(Number)]);
  });

  it('shows the title as it goes out', async () => {
    const seriesId = await newSeries({ name: 'Titled' });
    await editSeries(seriesId, { name: 'Plank by Plank' });
    const { editDefaults } = await import('@/desk/defaults/defaults');
    await editDefaults({ layer: 'series', owner: seriesId }, { titlePattern: '{{series}} {{episode}}: {{title}}' });
    const [id = ''] = await manyVideos(1, channels.slice(0, 1), { seriesId, states: ['draft'] });
    await database()('videos').where({ id }).update({ title: 'Ribs', episode: '12' });
    expect((await lookAtBoard({ ids: [id] })).rows[0]?.shownTitle).toBe('Plank by Plank 12: Ribs');
    await editDefaults({ layer: 'series', owner: seriesId }, { titlePattern: '{{#broken' }).catch(() => undefined);
    expect((await lookAtBoard({ ids: [id] })).rows).toHaveLength(1);
  });

  it.each([
    [{ after: 'no place' }],
    [{ after: '{"id":"x","group":"needs you","title":""}' }],
    [{ most: 100_000 }],
    [{ group: 'all' }],
    [{ ids: 'x,y' }],
    [{ colour: 'red' }],
    [{ find: 'x'.repeat(301) }],
  ])('is not given for what is no question: %j', async (ask) => {
    await expect(lookAtBoard(ask)).rejects.toThrow(expect.objectContaining({ name: 'ValidationError' }));
  });
});

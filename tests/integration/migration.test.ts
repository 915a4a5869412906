import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect, type Database } from '@/store/database';
import { newId } from '@/store/ids';
import { migrations } from '@/store/migrations';

const NAME = 'kettle_drop_before_layers';
let db: Database;
const run = async (way: 'up' | 'down', from: number, to?: number) => {
  const names = Object.keys(migrations).sort().slice(from, to);
  // The way back takes the newest off first.
  for (const name of way === 'up' ? names : names.reverse()) await migrations[name]?.[way]?.(db);
};

beforeAll(async () => {
  const server = connect(undefined);
  await server.raw('DROP DATABASE IF EXISTS ??', [NAME]);
  await server.raw('CREATE DATABASE ?? CHARACTER SET utf8mb4', [NAME]);
  await server.destroy();
  db = connect(NAME);
});
afterAll(async () => {
  await db.raw('DROP DATABASE ??', [NAME]);
  await db.destroy();
});

describe('records from before there were layers', () => {
  it('keep what was set on them, and leave the rest to the layers; what was sent stays as it was', async () => {
    await run('up', 0, 4);
    const at = new Date();
    const [video, plain, account, sentChannel, unsentChannel] = [newId(), newId(), newId(), newId(), newId()];
    const words = { titleFrom: 'person', createdAt: at, updatedAt: at };
    await db('videos').insert([
      {
        ...words,
        id: video,
        title: 'Old 🛶',
        description: 'Two lines',
        tags: '["keel"]',
        privacy: 'link',
        declarations: JSON.stringify({ forChildren: false, language: 'en', licence: 'all rights reserved' }),
      },
      { ...words, id: plain, title: 'Plain', description: '', tags: '[]', privacy: 'private', declarations: null },
    ]);
    await db('accounts').insert({
      id: account,
      site: 'lanternfold',
      siteAccountId: 'a',
      name: 'A',
      state: 'connected',
      createdAt: at,
      scope: '',
      updatedAt: at,
    });
    for (const id of [sentChannel, unsentChannel]) {
      const channel = { id, accountId: account, siteChannelId: id, name: 'C', address: 'https://c.example' };
      await db('channels').insert({ ...channel, createdAt: at });
    }
    const drop = { videoId: video, createdAt: at, updatedAt: at, nextTryAt: at, own: null };
    await db('drops').insert([
      { ...drop, id: newId(), channelId: sentChannel, state: 'live', privacy: 'everyone', playlists: '["p1"]' },
      { ...drop, id: newId(), channelId: unsentChannel, state: 'draft', own: '{"title":"Own"}', playlists: '[]' },
    ]);
    await run('up', 4, 5);
    const videos = new Map((await db('videos').select()).map((row) => [row.id, row]));
    expect(videos.get(video)).toMatchObject({ title: 'Old 🛶', summary: 'Two lines', seriesId: null, episode: '' });
    expect(JSON.parse(videos.get(video).own)).toEqual({
      forChildren: false,
      language: 'en',
      privacy: 'link',
      tags: { way: 'add', items: ['keel'] },
    });
    expect(JSON.parse(videos.get(plain).own)).toEqual({});
    const drops = new Map((await db('drops').select()).map((row) => [row.channelId, row]));
    expect(JSON.parse(drops.get(sentChannel).own)).toEqual({ privacy: 'everyone' });
    expect(JSON.parse(drops.get(sentChannel).chosenPlaylists)).toEqual(['p1']);
    expect(JSON.parse(drops.get(sentChannel).sentWith)).toMatchObject({ channel: {}, series: {} });
    expect(JSON.parse(drops.get(unsentChannel).own)).toEqual({ title: 'Own' });
    expect(drops.get(unsentChannel)).toMatchObject({ sentWith: null, chosenPlaylists: null });
    await run('down', 4, 5);
    await run('up', 4, 5);
    expect((await db('videos').where({ id: video }).first()).summary).toBe('Two lines');
  });

  it('and from before a drop had an end: what was held by link or private goes on, what nobody chose is asked', async () => {
    const at = new Date();
    const { id: channelId } = await db('channels').first('id');
    const records = {
      held: { state: 'held', sentWords: '{"privacy":"link"}' },
      word: { state: 'held', sentWords: '{"privacy":"everyone"}' },
      live: { state: 'live', sentWords: '{"privacy":"everyone"}', liveAt: at },
      closed: { state: 'held', sentWords: '{"privacy":"private"}' },
    };
    const ids = new Map<string, string>();
    for (const [name, drop] of Object.entries(records)) {
      const videoId = newId();
      ids.set(name, videoId);
      const choice = name === 'held' ? '{"colours":[],"places":[],"name":""}' : '{"colours":["green"]}';
      await db('videos').insert({
        id: videoId,
        title: name,
        titleFrom: 'person',
        summary: '',
        own: '{}',
        seriesFrom: 'last used',
        chapterChoice: choice,
        createdAt: at,
        updatedAt: at,
      });
      const times = { createdAt: at, updatedAt: at, nextTryAt: at };
      await db('drops').insert({ id: newId(), videoId, channelId, own: '{}', ...times, ...drop });
      const change = { subject: videoId, at, field: 'title', before: '"Old \\"one\\""', after: '"New"', state: 'made' };
      await db('changes').insert(change);
    }
    await run('up', 5);
    const dropOf = async (name: string) =>
      db('drops')
        .where({ videoId: ids.get(name) })
        .first('state', 'openedTo');
    expect(await dropOf('held')).toEqual({ state: 'proofing', openedTo: 'link' });
    expect(await dropOf('closed')).toEqual({ state: 'proofing', openedTo: null });
    expect(await dropOf('word')).toEqual({ state: 'held', openedTo: null });
    expect(await dropOf('live')).toEqual({ state: 'live', openedTo: 'everyone' });
    const video = await db('videos')
      .where({ id: ids.get('held') })
      .first();
    expect(video).toMatchObject({ chapterChoice: null, seriesFrom: 'person' });
    expect(
      (
        await db('videos')
          .where({ id: ids.get('word') })
          .first()
      ).chapterChoice,
    ).toContain('green');
    const change = await db('changes')
      .where({ subject: ids.get('held') })
      .first();
    expect([change.field, JSON.parse(change.before)]).toEqual(['titled', { title: 'Old "one"', titleFrom: 'person' }]);
    await run('down', 5);
    expect(
      (
        await db('changes')
          .where({ subject: ids.get('held') })
          .first()
      ).before,
    ).toBe('"Old \\"one\\""');
    await run('up', 5);
  });

  it('and from before there were jobs: what waited is a job, and waits again on the way back', async () => {
    await run('down', 7);
    const at = new Date();
    const { id: videoId } = await db('videos').first('id');
    const [reading, ready] = [newId(), newId()];
    const cut = { videoId, fileName: 'a.mp4', size: 1, createdAt: at, nextTryAt: at };
    await db('cuts').insert([
      { ...cut, id: reading, ordinal: 90, fileKey: 'cuts/a', state: 'reading' },
      { ...cut, id: ready, ordinal: 91, fileKey: 'cuts/b', state: 'ready' },
    ]);
    await db('measurements').insert({ id: newId(), cutId: ready, state: 'waiting', nextTryAt: at });
    await db('pictureHabits').insert({ id: videoId, state: 'waiting', nextTryAt: at });
    await run('up', 7);
    const jobs: { kind: string; subject: string; state: string }[] = await db('jobs').select(
      'kind',
      'subject',
      'state',
    );
    expect(jobs).toHaveLength(3);
    for (const [kind, subject] of Object.entries({ read: reading, measure: ready, picture: videoId })) {
      expect(jobs).toContainEqual({ kind, subject, state: 'waiting' });
    }
    await run('down', 7);
    expect(await db('pictureHabits').where({ id: videoId }).first('state')).toEqual({ state: 'waiting' });
    expect((await db('cuts').where({ id: reading }).first('nextTryAt')).nextTryAt).toBeInstanceOf(Date);
    await run('up', 7);
  });

  it('and templates of before: the sections that are cut in turn have the names of today, everywhere, and back', async () => {
    await run('down', 11);
    const old = '{{summary}}{{#go.2}}a{{/go.2}}{{#go.1}}b{{/go.1}}{{#go.10}}c{{/go.10}} go.1';
    const now = '{{summary}}{{#cut-second}}a{{/cut-second}}{{#cut-first}}b{{/cut-first}}{{#cut-10}}c{{/cut-10}} go.1';
    const { id } = await db('videos').first('id');
    const own = { template: old, tags: { way: 'add', items: ['go.1'] } };
    await db('videos')
      .where({ id })
      .update({ own: JSON.stringify(own) });
    await db('defaults').insert({ layer: 'site', owner: 'x', setValues: JSON.stringify(own), updatedAt: new Date() });
    const before = JSON.stringify({ layer: 'site', owner: 'x', field: 'template', value: old });
    await db('changes').insert({
      subject: 'x',
      field: 'default',
      before,
      after: 'null',
      state: 'made',
      at: new Date(),
    });
    const kept = async () => {
      const video = JSON.parse((await db('videos').where({ id }).first('own')).own);
      const layer = JSON.parse((await db('defaults').where({ owner: 'x' }).first('setValues')).setValues);
      const change = JSON.parse((await db('changes').where({ subject: 'x' }).first('before')).before);
      return [video.template, video.tags.items[0], layer.template, change.value];
    };
    await run('up', 11);
    expect(await kept()).toEqual([now, 'go.1', now, now]);
    await run('down', 11);
    expect(await kept()).toEqual([old, 'go.1', old, old]);
    await run('up', 11);
  });

  it('and what was measured before there was more to find is measured again, behind what comes now', async () => {
    await run('down', 12);
    const [old] = await db('measurements').limit(1).select('id', 'cutId');
    const found = { loudness: { step: 100, tenths: [] }, shots: [] };
    await db('jobs')
      .insert({ ...JOB(), subject: old.cutId })
      .onConflict(['kind', 'subject'])
      .merge(['state']);
    const kept = async () => db('measurements').where({ id: old.id }).first('state', 'found');
    const measured = async (more: object) => {
      await db('measurements')
        .where({ id: old.id })
        .update({ state: 'ready', found: JSON.stringify({ ...found, ...more }) });
    };
    await measured({ picture: { end: { num: 1, den: 1 }, varies: false, black: [], frozen: [] } });
    await run('up', 12);
    expect((await kept()).state).toBe('ready');
    await run('down', 12);
    await measured({});
    await run('up', 12);
    expect(await kept()).toEqual({ state: 'waiting', found: null });
    const jobs = await db('jobs').where({ kind: 'measure', subject: old.cutId }).select('state', 'priority');
    expect(jobs).toEqual([{ state: 'waiting', priority: -10 }]);
  });

  it('and file settings that nothing used are a set with a name, everywhere the same; none of them keeps the file', async () => {
    await run('down', 13);
    const [{ id: video }] = await db('videos').limit(1).select('id');
    const [before, none] = [
      { tallest: 1080, kilobits: 18_000 },
      { tallest: null, kilobits: null },
    ];
    await db('videos')
      .where({ id: video })
      .update({ own: JSON.stringify({ file: before, tags: { way: 'add', items: [] } }) });
    await db('defaults')
      .where({ owner: 'x' })
      .update({ setValues: JSON.stringify({ file: none }) });
    await db('changes')
      .where({ subject: 'x' })
      .update({ before: JSON.stringify({ value: before }) });
    await run('up', 13);
    const [set, ...more] = await db('fileSets').select('id', 'name', 'settings');
    expect(more).toEqual([]);
    expect(set.name).toBe('1080 lines, 18 Mbit/s');
    expect(JSON.parse(set.settings)).toMatchObject({
      size: { way: 'at most', lines: 1080 },
      control: { kilobits: 18_000 },
    });
    const habit = { way: 'set', set: set.id };
    const { own } = await db('videos').where({ id: video }).first('own');
    expect(JSON.parse(own)).toEqual({ file: habit, tags: { way: 'add', items: [] } });
    const { setValues } = await db('defaults').where({ owner: 'x' }).first('setValues');
    expect(JSON.parse(setValues)).toEqual({ file: { way: 'keep' } });
    const change = await db('changes').where({ subject: 'x' }).first('before');
    expect(JSON.parse(change.before)).toEqual({ value: habit });
  });

  it('and one text of what a site was given is its parts, with what was shown and every text before, and back', async () => {
    await run('down', 21);
    const words = (more: object) => ({
      ...{ title: 'Keel', text: '0:00 Start', tags: ['oak'], chapters: [{ stamp: '0:00', title: 'Start' }] },
      ...{ chapterTimes: [{ num: 0, den: 1 }], duration: { num: 9, den: 1 } },
      ...{ declared: { comments: 'off', forChildren: false }, ...more },
    });
    const given = (more: object = {}) =>
      JSON.stringify({
        ...{ words: words(more), privacy: 'link', playlists: ['p1'], pictureDigest: 'abc' },
        captions: [{ id: 'c1', language: 'en' }],
      });
    const shows = [
      { field: 'title', meant: 'Keel', shown: 'Theirs', left: true },
      { field: 'tags', meant: 'oak', shown: 'theirs' },
    ];
    const [{ id }] = await db('drops').limit(1).select('id');
    const snag = { at: 'proofing', kind: 'difference', what: '', remedy: '', fields: ['description', 'thumbnail'] };
    const differences = [{ field: 'description', meant: 'a', shown: 'b' }];
    const old = {
      ...{ round: 3, sentWords: given(), shows: JSON.stringify(shows), snag: JSON.stringify({ ...snag, differences }) },
      former: JSON.stringify({ siteVideoId: 'v', sentWords: given({ title: 'Former' }) }),
    };
    await db('drops').where({ id }).update(old);
    const at = new Date(0);
    await db('givenWords').insert([
      { dropId: id, at, words: given({ title: 'First' }) },
      { dropId: id, at, words: given() },
    ]);
    await db('reviews').insert({ dropId: id, site: 'x', handedInAt: at, given: given() });
    await run('up', 21);
    const rows = await db('dropParts').where({ dropId: id }).select('round', 'part', 'given', 'shown', 'differs');
    const now = new Map(rows.flatMap((row) => (row.round === 3 ? [[row.part, row]] : [])));
    const value = (part: string) => JSON.parse(now.get(part)?.given ?? 'null');
    expect([value('title'), value('tags'), value('picture'), value('privacy')]).toEqual([
      ...['Keel', ['oak'], 'abc', { to: 'link' }],
    ]);
    expect([value('permissions'), value('audience')]).toEqual([{ comments: 'off' }, { forChildren: false }]);
    // Lines of a text have no use for their times.
    expect(value('chapters')).toEqual({ lines: [{ stamp: '0:00', title: 'Start' }], times: [] });
    expect(now.get('title')).toMatchObject({ shown: '"Theirs"', differs: 'left' });
    // What was kept as words alone is read once more.
    expect(now.get('tags')).toMatchObject({ shown: null, differs: null });
    expect(rows.find((row) => row.round === 2 && row.part === 'title')?.given).toBe('"Former"');
    const drop = await db('drops').where({ id }).first('former', 'snag');
    expect(JSON.parse(drop.former)).toEqual({ siteVideoId: 'v', round: 2 });
    expect(JSON.parse(drop.snag)).toMatchObject({
      parts: ['text', 'picture'],
      differences: [{ part: 'text', field: 'text', meant: 'a', shown: 'b' }],
    });
    const titles = await db('givenParts').where({ dropId: id, part: 'title' }).orderBy('id').pluck('value');
    expect(titles).toEqual(['"First"', '"Keel"']);
    expect(await db('givenParts').where({ dropId: id, part: 'text' })).toHaveLength(1);
    const review = async () => JSON.parse((await db('reviews').where({ dropId: id }).first('given')).given);
    expect(await review()).toMatchObject({ title: 'Keel', permissions: { comments: 'off' } });
    await run('down', 21);
    const back = await db('drops').where({ id }).first('sentWords', 'shows', 'former', 'snag');
    const { duration: _, ...kept } = words({ chapterTimes: [] });
    expect(JSON.parse(back.sentWords)).toEqual({ ...JSON.parse(given()), words: kept });
    expect(JSON.parse(back.shows)).toEqual(shows.slice(0, 1));
    expect(JSON.parse(JSON.parse(back.former).sentWords).words.title).toBe('Former');
    expect(JSON.parse(back.snag)).toEqual({ ...snag, differences });
    const texts = await db('givenWords').where({ dropId: id }).orderBy('id').pluck('words');
    expect(texts.map((text: string) => JSON.parse(text).words.title)).toEqual(['First', 'Keel']);
    expect((await review()).words.title).toBe('Keel');
    await run('up', 21);
  });
});

const JOB = () => ({ id: newId(), kind: 'measure', state: 'done', askedAt: new Date(), nextTryAt: new Date() });

describe('every migration', () => {
  /** Columns and keys of all tables, whatever a key is called. */
  async function shape(): Promise<string[]> {
    const [columns] = await db.raw(
      `SELECT CONCAT_WS(' ', table_name, column_name, column_type) AS line
       FROM information_schema.columns WHERE table_schema = ? ORDER BY line`,
      [NAME],
    );
    const [keys] = await db.raw(
      `SELECT CONCAT_WS(' ', table_name, seq_in_index, column_name, non_unique) AS line
       FROM information_schema.statistics WHERE table_schema = ? ORDER BY line`,
      [NAME],
    );
    return [...columns, ...keys].map(({ line }: { line: string }) => line);
  }

  it('goes back as well as forth: nothing is left of it, and what is made again is the same', async () => {
    await db.raw('DROP DATABASE ??', [NAME]);
    await db.raw('CREATE DATABASE ?? CHARACTER SET utf8mb4', [NAME]);
    await db.raw('USE ??', [NAME]);
    const after: string[][] = [];
    const count = Object.keys(migrations).length;
    for (let n = 0; n < count; n += 1) {
      after.push(await shape());
      await run('up', n, n + 1);
    }
    for (let n = count - 1; n >= 0; n -= 1) {
      await run('down', n, n + 1);
      expect([n, await shape()]).toEqual([n, after[n]]);
    }
  });
});

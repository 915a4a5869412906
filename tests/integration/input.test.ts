import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startConnecting } from '@/desk/account/connect';
import { redo, undo } from '@/desk/changes/changes';
import { announceCut } from '@/desk/cut/bring-cut';
import { bringCaptions, dropCaptions, openCaptions } from '@/desk/video/captions';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { editMarkers, exportMarkers, importMarkers, previewMarkers } from '@/desk/video/markers';
import { lookAtMarkers } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { siteById } from '@/sites/registry';
import { closeDatabase, database } from '@/store/database';
import { newId } from '@/store/ids';
import { makeVideo } from '@/store/record/videos';
import { connectedChannels } from '../setup/desk';
import { newVideo } from '../setup/new-video';

let videoId: string;
let channels: Map<string, string>;
beforeAll(async () => {
  channels = await connectedChannels();
  videoId = await makeVideo(database(), newVideo('Bad input'));
  for (const name of ['Marrow Quay', 'Tide Notes']) await tickChannel(videoId, channels.get(name) ?? '', true);
});
afterAll(closeDatabase);

const bytes = (text: string) => new TextEncoder().encode(text);
const sheet = () => lookAtSheet(videoId);
const track = (text = 'The tide turns') => bytes(`1\n00:00:01,000 --> 00:00:03,000\n${text}\n`);

describe('bad input', () => {
  it.each<[string, unknown, RegExp]>([
    ['a title without end', { title: 'x'.repeat(1001) }, /at most 1,000 characters/],
    ['a summary without end', { summary: 'x'.repeat(100_001) }, /at most 100,000/],
    ['tags without end', { tags: { way: 'add', items: Array.from({ length: 501 }, () => 'x') } }, /at most 500 tags/],
    ['tags that are no text', { tags: { way: 'add', items: [{}] } }, /tags/],
    ['tags without a way', { tags: ['keel'] }, /tags of a layer are given as/],
    ['a language that is no tag', { language: 'English, please' }, /by its tag/],
    ['a day that is none', { recordedOn: '2026-02-30' }, /recording date looks like/],
    ['a month that is none', { recordedOn: '2026-13-01' }, /recording date looks like/],
    ['a day in another form', { recordedOn: '24.11.2026' }, /looks like/],
    ['a licence that is none', { licence: 'mine' }, /licence/],
    ['comments that are none', { comments: 'loud' }, /comments/],
    ['a declaration that is none', { colour: 'red' }, /unspecified/],
    ['credits without end', { credits: Array(51).fill({ role: 'a', name: 'b' }) }, /50 credits/],
    ['an out point before the in point', { timeLine: lineOf(5, 4) }, /after the in point/],
    ['a time line with a rate of nothing', { timeLine: { ...lineOf(0, 4), to: { num: 1, den: 0 } } }, /den/],
    ['a start after the last hour', { timeLine: { ...lineOf(0, 4), startFrame: 9e12 } }, /startFrame/],
    ['a range that ends after the last hour', { timeLine: lineOf(0, 9e14) }, /beyond 1,000 hours/],
    ['a start that is no frame', { timeLine: { ...lineOf(0, 4), startFrame: -1 } }, /startFrame/],
    ['a choice of places that are none', { chapterChoice: { colours: [], places: ['moon'], name: '' } }, /places/],
    ['a picture that is no id', { pictureId: '../../etc/passwd' }, /no id/],
    ['a list', [1, 2], /unspecified|object/],
    ['nothing that is a record', 'title', /unspecified|object/],
  ])('%s is refused, and changes nothing', async (_, edit, says) => {
    const before = await sheet();
    await expect(editVideo(videoId, edit)).rejects.toThrow(says);
    expect(await sheet()).toEqual(before);
  });

  function lineOf(from: number, to: number) {
    const second = (num: number) => ({ num, den: 1 });
    return { startFrame: 0, dropFrame: false, from: second(from), to: second(to), cutId: undefined };
  }

  it('of times that no time line has is refused, or costs only itself', async () => {
    const videoId = await makeVideo(database(), newVideo('Far away'));
    const far = { id: newId(), isNew: true, time: { num: 9e14, den: 1 }, name: 'Far', note: '', colour: 'green' };
    await expect(editMarkers(videoId, { put: [far] })).rejects.toThrow(/beyond 1,000 hours/);
    const chapters = [
      { startTime: 1, title: 'Near' },
      { startTime: 2, endTime: 9e14, title: 'Never ends' },
      { startTime: 9e14, title: 'Far' },
    ];
    const file = bytes(JSON.stringify({ version: '1.2.0', chapters }));
    const { findings } = await importMarkers(videoId, file, 'replace', { fileName: 'far.json' });
    expect((await lookAtMarkers(videoId)).markers.map(({ name }) => name)).toEqual(['Near']);
    expect(findings.filter(({ done }) => done === 'left it out')).toHaveLength(2);
  });

  it('of names that every object has is refused like any other', async () => {
    for (const name of ['constructor', '__proto__', 'hasOwnProperty']) {
      await expect(startConnecting(name, 'http://127.0.0.1/back')).rejects.toMatchObject({ kind: 'not found' });
      expect(() => siteById(name, 7310)).toThrow(/no site called/);
    }
    await expect(announceCut({ fileName: ['a.mp4'], size: 5 })).rejects.toMatchObject({ name: 'ValidationError' });
    await expect(lookAtSheet('x'.repeat(5000))).rejects.toMatchObject({ kind: 'not found' });
  });

  it('of several fields at once leaves all of them, where one is wrong', async () => {
    const before = await sheet();
    await expect(editVideo(videoId, { title: 'Taken?', privacy: 'nobody' })).rejects.toThrow(/privacy/);
    expect((await sheet()).title).toBe(before.title);
  });

  it.each<[string, () => Promise<unknown>]>([
    ['of the record', () => editVideo(newId(), { title: 'x' })],
    ['of a channel', () => editOnChannel(newId(), { channelId: newId(), set: {} })],
    ['of a tick', () => tickChannel(newId(), channels.get('Marrow Quay') ?? '', true)],
    ['of markers', () => editMarkers(newId(), { put: [] })],
    ['of a marker file', () => previewMarkers(newId(), bytes('0:00 One'))],
    ['of captions', () => bringCaptions(newId(), track(), { language: 'en' })],
    ['of a caption track', () => openCaptions(newId())],
    ['of playlists', () => editOnChannel(newId(), { channelId: newId(), playlists: [] })],
    ['of undo', () => undo(newId())],
    ['of redo', () => redo(newId())],
    ['of a Sheet', () => lookAtSheet(newId())],
    ['of a table', () => lookAtMarkers(newId())],
  ])('%s for what is not there says so', async (_, act) => {
    await expect(act()).rejects.toMatchObject({ kind: 'not found' });
  });

  it('of a file that is announced says what is wrong with it', async () => {
    for (const file of [
      { fileName: '', size: 1 },
      { fileName: 'a.mp4', size: -1 },
      { fileName: 'a.mp4', size: 1.5 },
      {},
    ]) {
      await expect(announceCut(file)).rejects.toThrow();
    }
  });
});

describe('markers by hand', () => {
  const marker = (name: string, seconds = 1) => ({
    id: newId(),
    isNew: true,
    time: { num: seconds, den: 1 },
    name,
    note: '',
    colour: 'green',
  });

  it('are refused whole where one of them is wrong', async () => {
    const put = [marker('well'), { ...marker('ill'), time: { num: 1, den: 0 } }];
    await expect(editMarkers(videoId, { put })).rejects.toThrow(/den/);
    await expect(editMarkers(videoId, { put: [{ ...marker('ill'), kind: 'maybe' }] })).rejects.toThrow(/kind/);
    await expect(editMarkers(videoId, { put: [{ ...marker('ill'), id: 'x' }] })).rejects.toThrow(/no id/);
    expect((await lookAtMarkers(videoId)).markers).toEqual([]);
  });

  it('come from files in the way that is asked for, and in no other', async () => {
    await expect(importMarkers(videoId, bytes('0:00 One\n0:20 Two\n'), 'stir')).rejects.toThrow();
    await expect(importMarkers(videoId, bytes(''), 'replace')).rejects.toThrow(/empty/);
    await expect(importMarkers(videoId, bytes('\u0000\u0001'), 'replace')).rejects.toThrow(/not a text/);
    await expect(exportMarkers(videoId, 'edl', false)).rejects.toMatchObject({ kind: 'not now' });
    await expect(exportMarkers(videoId, 'toString', false)).rejects.toMatchObject({ kind: 'not taken' });
    await importMarkers(videoId, bytes('0:00 One\n0:20 Two\n'), 'replace');
    await editVideo(videoId, { chapterChoice: { colours: [''], places: [], name: '' } });
    expect(await exportMarkers(videoId, 'text', true)).toBe('0:00 One\n0:20 Two\n');
    await undo(videoId);
    await undo(videoId);
    expect((await lookAtMarkers(videoId)).markers).toEqual([]);
  });
});

describe('captions', () => {
  const languages = async () => (await sheet()).captions.map(({ language }) => language);

  it('are one file a language: a newer one takes the place of the older, and undo brings that back', async () => {
    await bringCaptions(videoId, track('old'), { language: 'en', fileName: 'a.srt' });
    await bringCaptions(videoId, track('deutsch'), { language: 'de' });
    const [first] = (await sheet()).captions;
    await bringCaptions(videoId, track('new'), { language: 'en' });
    expect((await languages()).sort()).toEqual(['de', 'en']);
    const fresh = (await sheet()).captions.find(({ language }) => language === 'en');
    expect(await openCaptions(fresh?.id ?? '')).toBe('WEBVTT\n\n00:00:01.000 --> 00:00:03.000\nnew\n');
    await undo(videoId);
    expect((await sheet()).captions.find(({ language }) => language === 'en')?.id).toBe(first?.id);
  });

  it('come off, and come back', async () => {
    const [first] = (await sheet()).captions;
    await dropCaptions(videoId, first?.id ?? '');
    expect(await languages()).toHaveLength(1);
    await undo(videoId);
    expect(await languages()).toHaveLength(2);
  });

  it('are refused without a language, or where they are none', async () => {
    await expect(bringCaptions(videoId, track(), {})).rejects.toThrow(/language/);
    await expect(bringCaptions(videoId, track(), { language: 'e' })).rejects.toThrow(/by its tag/);
    await expect(bringCaptions(videoId, bytes('no captions'), { language: 'en' })).rejects.toThrow(/SubRip or WebVTT/);
    expect(await languages()).toHaveLength(2);
  });

  it('of another video are not taken', async () => {
    const other = await makeVideo(database(), newVideo('Another'));
    const [own] = (await sheet()).captions;
    await editVideo(other, { captions: [own?.id ?? ''] });
    expect((await lookAtSheet(other)).captions).toEqual([]);
    expect(await languages()).toHaveLength(2);
  });
});

describe('undo', () => {
  it('takes back two declarations one by one, and typing in one of them as one', async () => {
    const place = async () => (await sheet()).values;
    for (const text of ['Y', 'Ya', 'Yard']) await editVideo(videoId, { place: text });
    await editVideo(videoId, { ratings: false });
    await editVideo(videoId, { embedding: false });
    expect(await place()).toMatchObject({ place: 'Yard', ratings: false, embedding: false });
    await undo(videoId);
    expect(await place()).toMatchObject({ place: 'Yard', ratings: false, embedding: true });
    await undo(videoId);
    expect(await place()).toMatchObject({ place: 'Yard', ratings: true });
    await undo(videoId);
    expect((await place()).place).toBe('');
  });

  it('takes back what was set for two channels one by one', async () => {
    const [one, two] = ['Marrow Quay', 'Tide Notes'].map((name) => channels.get(name) ?? '');
    const own = async (id: string | undefined) => (await sheet()).channels.find((each) => each.id === id)?.own;
    await editOnChannel(videoId, { channelId: one, set: { title: 'One' } });
    await editOnChannel(videoId, { channelId: two, set: { title: 'Two' } });
    await undo(videoId);
    expect([await own(one), await own(two)]).toEqual([{ title: 'One' }, {}]);
    await redo(videoId);
    expect([await own(one), await own(two)]).toEqual([{ title: 'One' }, { title: 'Two' }]);
  });
});

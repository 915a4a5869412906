import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { announceCuts, noteWaiting, proveStart } from '@/desk/cut/bring-cut';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { fingerprintOfFile, proofOfStart } from '@/desk/cut/file-proof';
import { editDefaults } from '@/desk/defaults/defaults';
import { moveUp } from '@/desk/defaults/move-up';
import { editSeries, newSeries } from '@/desk/defaults/series';
import { editShelfLink, newShelfLink, removeShelfLink } from '@/desk/defaults/shelf';
import { ChangedMeanwhile } from '@/desk/desk-error';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { editMarkers, importMarkers } from '@/desk/video/markers';
import { lookAtMarkers } from '@/desk/views/look';
import { lookAtBoard } from '@/desk/views/look-at-board';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetChannel } from '@/desk/views/views';
import { inWindow } from '@/desk/window';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { cutById } from '@/store/record/cuts';
import { makeClip } from '../../setup/clips';
import {
  announcedCut,
  bringFile,
  channelsOfTheYard,
  onlyDrop,
  setFaults,
  untilGiven,
  untilSheet,
  untilState,
  videosAtLanternfold,
} from '../../setup/desk';
import { aWorker } from '../../setup/worker';

aWorker();
let ids: Map<string, string>;
const clip = makeClip({ name: 'record.mp4', seconds: 3 });
const longer = makeClip({ name: 'record-longer.mp4', seconds: 5 });
const idOf = (name: string) => ids.get(name) ?? '';
const text = (words: string) => new TextEncoder().encode(words);

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
afterAll(() => setFaults());

async function ready(fileName: string, channel = 'Marrow Quay'): Promise<string> {
  const videoId = await bringFile(clip, channel, fileName);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  return videoId;
}

async function channelOf(videoId: string, name = 'Marrow Quay'): Promise<SheetChannel> {
  const found = (await lookAtSheet(videoId)).channels.find(({ id }) => id === idOf(name));
  if (!found) throw new Error(`There is no channel ${name}`);
  return found;
}

const EDL = `TITLE: one colour
001  AX       V     C        01:00:00:00 01:00:30:00 01:00:00:00 01:00:30:00
* LOC: 01:00:00:00 GREEN   Start
* LOC: 01:00:11:00 GREEN   client HATES this, fix colour
`;

describe('notes to the team', () => {
  it('stay with the team until somebody says which colour is for viewers', async () => {
    const videoId = await ready('one-colour.mp4', 'Marrow Quay Films');
    await importMarkers(videoId, text(EDL));
    const marker = { id: newId(), isNew: true, time: { num: 1, den: 1 }, name: 'by hand', note: '', colour: 'red' };
    await editMarkers(videoId, { put: [marker] });
    const sheet = await lookAtSheet(videoId);
    expect(sheet.chaptersChosen).toBeUndefined();
    expect(sheet.chapterChoice.colours).toEqual([]);
    expect((await channelOf(videoId, 'Marrow Quay Films')).words.chapters).toEqual([]);
    await sendVideo(videoId);
    await untilState(videoId, 'live');
    const sent = await channelOf(videoId, 'Marrow Quay Films');
    expect(JSON.stringify(sent.words)).not.toContain('HATES');
  });

  it('a series may say so, and a person for the video may say otherwise', async () => {
    const series = await newSeries({ name: 'With chapters' });
    await editDefaults({ layer: 'series', owner: series }, { chapterColours: ['green'] });
    const videoId = await ready('by-the-series.mp4', 'Marrow Quay Films');
    await importMarkers(videoId, text(EDL));
    await editVideo(videoId, { seriesId: series });
    expect(await lookAtSheet(videoId)).toMatchObject({ chaptersChosen: 'by the series' });
    const chapters = async () =>
      (await channelOf(videoId, 'Marrow Quay Films')).words.chapters.map(({ title }) => title);
    expect(await chapters()).toEqual(['Start']);
    await editVideo(videoId, { chapterChoice: { colours: [], places: [], name: '' } });
    expect(await lookAtSheet(videoId)).toMatchObject({ chaptersChosen: 'here' });
    expect(await chapters()).toEqual([]);
  });
});

describe('blanks that somebody forgot', () => {
  it.each([
    ['title', { title: 'Keel {{leftover}}' }, 'title'],
    ['summary', { summary: 'Two lines [[gear]]' }, 'summary'],
    ['a link’s words', { links: { way: 'add', items: [{ label: '{name}', url: 'https://a.example' }] } }, 'links'],
    ['a tag', { tags: { way: 'add', items: ['<<tag>>'] } }, 'tags'],
  ])('in %s stop it, and lead there', async (_, edit, place) => {
    const videoId = await ready('blank.mp4');
    await editVideo(videoId, edit);
    const blanks = (await channelOf(videoId)).missing.filter(({ blank }) => blank);
    expect(blanks).toMatchObject([{ place }]);
    const { sent, notReady } = await sendVideo(videoId);
    expect(sent).toEqual([]);
    expect(notReady[0]?.missing.join()).toContain('looks like a blank');
  });

  it('in the name of a chapter, and in words for one channel alone, too', async () => {
    const videoId = await ready('blank-chapter.mp4', 'Marrow Quay Films');
    await importMarkers(videoId, text('time,name,colour\n0,{{chapter}},green\n'), 'replace', { fileName: 'm.csv' });
    await editVideo(videoId, { chapterChoice: { colours: ['green'], places: [], name: '' } });
    const missing = async () => (await channelOf(videoId, 'Marrow Quay Films')).missing;
    expect((await missing()).find(({ blank }) => blank === '{{chapter}}')?.place).toBe('chapters');
    await editOnChannel(videoId, { channelId: idOf('Marrow Quay Films'), set: { title: 'Own %TITLE%' } });
    expect((await missing()).find(({ blank }) => blank === '%TITLE%')?.place).toBe('title');
  });

  it('may be meant, which is said once and undone', async () => {
    const videoId = await ready('meant.mp4');
    await editVideo(videoId, { title: 'How {name} became a boat' });
    await editVideo(videoId, { meantBlanks: ['{name}'] });
    expect((await channelOf(videoId)).missing).toEqual([]);
    await undo(videoId);
    expect((await channelOf(videoId)).missing).toHaveLength(1);
  });
});

describe('a better file', () => {
  it('on a live video is said there and on the Board, and undo brings the former one back', async () => {
    const videoId = await ready('better.mp4');
    await sendVideo(videoId);
    await untilState(videoId, 'live');
    const former = (await lookAtSheet(videoId)).cut?.id;
    await bringLocalFile(longer, { videoId, anyway: true, fileName: 'better-2.mp4' });
    const sheet = await untilSheet(videoId, ({ cut }) => cut?.fileName === 'better-2.mp4' && cut.state === 'ready');
    expect(onlyDrop(sheet)).toMatchObject({ state: 'live', otherFile: true });
    const [row] = (await lookAtBoard({ ids: [videoId] })).rows;
    expect(row?.drops[0]?.otherFile).toBe(true);
    expect(await undo(videoId)).toEqual({ field: 'cut', kept: [] });
    const back = await lookAtSheet(videoId);
    expect(back.cut?.id).toBe(former);
    expect(onlyDrop(back).otherFile).toBe(false);
  });

  it('brought twice at once is two files, one after the other', async () => {
    const videoId = await ready('both.mp4');
    const both = [1, 2].map((n) => announcedCut({ fileName: `both-${n}.mp4`, size: 10, videoId }));
    const [one, two] = await Promise.all(both);
    expect(new Set([one?.ordinal, two?.ordinal])).toEqual(new Set([2, 3]));
  });
});

describe('the same file', () => {
  it('is known again, and one for another video does not go to the first', async () => {
    const [first, second] = [await ready('same-a.mp4'), await ready('same-b.mp4')];
    const file = { fileName: 'same.mp4', size: 5000, fingerprint: `same-${newId()}` };
    const one = await announcedCut({ ...file, videoId: first });
    const two = await announcedCut({ ...file, videoId: second });
    expect([one.videoId, two.videoId]).toEqual([first, second]);
    // Two videos with the same bytes name each other.
    const sheet = await lookAtSheet(second);
    expect(sheet.sameFile).toBeDefined();
  });

  it('is named by the command line’s way in, and taken once more only where that is said', async () => {
    const own = makeClip({ name: 'twice.mp4', seconds: 2, size: '160x90' });
    const { videoId } = await bringLocalFile(own);
    await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
    await expect(bringLocalFile(own)).rejects.toThrow(`video ${videoId}`);
    await expect(bringLocalFile(own, { anyway: true })).resolves.toMatchObject({ cutId: expect.any(String) });
  });

  it('that broke off goes on only where what has come is its own start', async () => {
    const size = 3000;
    const cut = await announcedCut({ fileName: 'proof.mp4', size, fingerprint: await fingerprintOfFile(clip, size) });
    await files().put(cut.fileKey, (await import('node:stream')).Readable.from([Buffer.alloc(1000, 7)]));
    const here = files().localPath(cut.fileKey);
    await expect(proveStart(cut.id, { upTo: 1000, digest: await proofOfStart(here, 1000) })).resolves.toBeUndefined();
    const other = await proofOfStart(clip, 1000);
    await expect(proveStart(cut.id, { upTo: 1000, digest: other })).rejects.toMatchObject({ kind: 'not taken' });
    await expect(proveStart(cut.id, { upTo: 900, digest: other })).rejects.toMatchObject({ kind: 'not now' });
  });
});

describe('several files at once', () => {
  it('have their rows at once, each with its state; what cannot be taken is named', async () => {
    const names = ['a.mp4', 'b.mp4', 'c.mp4'];
    const made = await announceCuts({
      files: [...names.map((fileName) => ({ fileName, size: 1000 })), { fileName: 'empty.mp4', size: 0 }, { size: 3 }],
    });
    expect(made.slice(0, 3).every((each) => 'cut' in each)).toBe(true);
    expect(made[3]).toMatchObject({ refused: expect.stringContaining('“empty.mp4” is empty') });
    expect(made[4]).toMatchObject({ refused: expect.stringContaining('fileName') });
    const ids = made.flatMap((each) => ('cut' in each ? each.cut.videoId : []));
    const { rows } = await lookAtBoard({ ids });
    expect(rows.map(({ cut }) => cut?.fileName).sort()).toEqual(names);
    for (const row of rows)
      expect(row).toMatchObject({ group: 'on the way', cut: { state: 'arriving', stalled: false } });
  });

  it('one that nothing comes of any more needs a person; one whose page is there does not', async () => {
    const [one, two] = [
      await announcedCut({ fileName: 'left.mp4', size: 1000 }),
      await announcedCut({ fileName: 'kept.mp4', size: 1000 }),
    ];
    // The clock is set forward by setting back what was heard last.
    await database()('cuts')
      .whereIn('id', [one.id, two.id])
      .update({ heardAt: new Date(Date.now() - 5 * 60_000) });
    await noteWaiting({ cuts: [two.id] });
    const ids = [one.videoId, two.videoId];
    const groups = new Map((await lookAtBoard({ ids })).rows.map((row) => [row.cut?.id, row.group]));
    expect(groups.get(one.id)).toBe('needs you');
    expect(groups.get(two.id)).toBe('on the way');
  });
});

describe('two windows on one series, or on one link of the shelf', () => {
  it('never write over each other in one field without asking', async () => {
    const owner = await newSeries({ name: 'Windows' });
    await editSeries(owner, { name: 'Of the first', on: { name: 'Windows' } });
    await editSeries(owner, { pattern: 'w_{title}', on: { pattern: '' } });
    const late = editSeries(owner, { name: 'Of the second', on: { name: 'Windows' } });
    await expect(late).rejects.toMatchObject({ name: 'ChangedMeanwhile', field: 'name', now: 'Of the first' });
    // The same once more is no conflict.
    await editSeries(owner, { name: 'Of the first', on: { name: 'Windows' } });
    await newShelfLink({ name: 'windows', label: 'Plans', url: 'https://plans.example' });
    await editShelfLink('windows', { label: 'Plans of the first', on: { label: 'Plans' } });
    await editShelfLink('windows', { url: 'https://new.example', on: { url: 'https://plans.example' } });
    const second = editShelfLink('windows', { label: 'Plans of the second', on: { label: 'Plans' } });
    await expect(second).rejects.toMatchObject({ field: 'label', now: 'Plans of the first' });
    await removeShelfLink('windows');
  });
});

describe('two windows on one video', () => {
  it('merge in different fields; in the same one the second is shown both and asked', async () => {
    const videoId = await ready('windows.mp4');
    const { title, summary } = await lookAtSheet(videoId);
    await inWindow('window-one-1', () => editVideo(videoId, { title: 'From one', on: { title } }));
    await inWindow('window-two-2', () => editVideo(videoId, { summary: 'From two', on: { summary } }));
    expect(await lookAtSheet(videoId)).toMatchObject({ title: 'From one', summary: 'From two' });
    const late = inWindow('window-two-2', () => editVideo(videoId, { title: 'From two', on: { title } }));
    await expect(late).rejects.toMatchObject({ field: 'title', now: 'From one' });
    await expect(late).rejects.toBeInstanceOf(ChangedMeanwhile);
    expect((await lookAtSheet(videoId)).title).toBe('From one');
    // The same once more, as after an answer that was lost, is no conflict.
    await editVideo(videoId, { title: 'From one', on: { title } });
    await inWindow('window-two-2', () => editVideo(videoId, { title: 'From two', on: { title: 'From one' } }));
    expect((await lookAtSheet(videoId)).title).toBe('From two');
  });

  it('nothing of a change is kept where one of its fields has changed', async () => {
    const videoId = await ready('windows-whole.mp4');
    await editVideo(videoId, { summary: 'Now' });
    const both = editVideo(videoId, { title: 'New', language: 'de', summary: 'Mine', on: { summary: '' } });
    await expect(both).rejects.toBeInstanceOf(ChangedMeanwhile);
    const sheet = await lookAtSheet(videoId);
    expect(sheet).toMatchObject({ titleFrom: 'file', summary: 'Now' });
    expect(sheet.own.language).toBeUndefined();
  });

  it('for a channel, a layer and a marker as well', async () => {
    const videoId = await ready('windows-more.mp4');
    const channelId = idOf('Marrow Quay');
    await editOnChannel(videoId, { channelId, set: { title: 'One' }, on: { title: null } });
    const late = editOnChannel(videoId, { channelId, set: { title: 'Two' }, on: { title: null } });
    await expect(late).rejects.toMatchObject({ field: 'title', now: 'One' });
    const series = await newSeries({ name: 'Two windows' });
    const key = { layer: 'series', owner: series };
    await editDefaults(key, { language: 'en', on: { language: null } });
    await expect(editDefaults(key, { language: 'de', on: { language: null } })).rejects.toBeInstanceOf(
      ChangedMeanwhile,
    );
    const id = newId();
    const words = { time: { num: 1, den: 1 }, name: 'A', note: '', colour: 'green', kind: 'by choice' };
    await editMarkers(videoId, { put: [{ ...words, id, isNew: true }] });
    await editMarkers(videoId, { put: [{ ...words, id, name: 'B', on: words }] });
    // Another window still shows the name A, and changes the note: the name stays B.
    await editMarkers(videoId, { put: [{ ...words, id, note: 'a note', on: words }] });
    expect((await lookAtMarkers(videoId)).markers[0]).toMatchObject({ name: 'B', note: 'a note' });
    const name = editMarkers(videoId, { put: [{ ...words, id, name: 'C', on: words }] });
    await expect(name).rejects.toMatchObject({ field: 'name', now: 'B', id });
  });

  it('are never one step of undo', async () => {
    const videoId = await ready('windows-undo.mp4');
    const type = (window: string, summary: string) => inWindow(window, () => editVideo(videoId, { summary }));
    await type('window-one-1', 'One');
    await type('window-one-1', 'One more');
    await type('window-two-2', 'One more, two');
    await undo(videoId);
    expect((await lookAtSheet(videoId)).summary).toBe('One more');
    await undo(videoId);
    expect((await lookAtSheet(videoId)).summary).toBe('');
  });
});

describe('undo', () => {
  it('of a value that moved up leaves what the series has had set since, and says so', async () => {
    const series = await newSeries({ name: 'Moved up' });
    const videoId = await ready('moved-up.mp4');
    await editVideo(videoId, { seriesId: series });
    await editVideo(videoId, { language: 'en' });
    await moveUp(videoId, { field: 'language', to: 'series' });
    await editDefaults({ layer: 'series', owner: series }, { language: 'de' });
    const stepped = await undo(videoId);
    expect(stepped?.kept.join()).toContain('changed there since');
    const { own, values } = await lookAtSheet(videoId);
    expect(own.language).toBe('en');
    expect(values.language).toBe('en');
    await editVideo(videoId, { language: null });
    expect((await lookAtSheet(videoId)).values.language).toBe('de');
  });

  it('of a tick that was sent says that it stays, and the next step is the one before', async () => {
    const videoId = await bringFile(clip, 'none of them', 'tick-sent.mp4');
    await editVideo(videoId, { summary: 'Before the tick' });
    await tickChannel(videoId, idOf('Marrow Quay'), true);
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
    await sendVideo(videoId);
    expect((await undo(videoId))?.kept.join()).toContain('The tick for Marrow Quay stays');
    expect((await channelOf(videoId)).ticked).toBe(true);
    expect(await undo(videoId)).toMatchObject({ field: 'summary' });
    await untilState(videoId, 'live');
  });

  it('of a title that came from the file’s name makes it the file’s again', async () => {
    const videoId = await ready('title-from-file.mp4');
    const { title } = await lookAtSheet(videoId);
    await editVideo(videoId, { title: 'By hand' });
    expect((await lookAtSheet(videoId)).titleFrom).toBe('person');
    await undo(videoId);
    expect(await lookAtSheet(videoId)).toMatchObject({ title, titleFrom: 'file' });
  });

  it('many changes of one layer at once are all kept, and all undone', async () => {
    const series = await newSeries({ name: 'All at once' });
    const key = { layer: 'series', owner: series };
    await Promise.all([
      editDefaults(key, { language: 'en' }),
      editDefaults(key, { place: 'Yard' }),
      editDefaults(key, { category: 'craft' }),
      editDefaults(key, { ratings: false }),
    ]);
    const values = async () => {
      const row = await database()('defaults').where(key).first('setValues');
      return Object.keys(JSON.parse(row?.setValues ?? '{}'));
    };
    expect((await values()).sort()).toEqual(['category', 'language', 'place', 'ratings']);
    for (let n = 0; n < 4; n += 1) await undo(series);
    expect(await values()).toEqual([]);
  });
});

describe('what has changed since it was sent', () => {
  it('is said field by field, and goes out to all channels at once or to one', async () => {
    const videoId = await ready('changes.mp4');
    await tickChannel(videoId, idOf('Marrow Quay Films'), true);
    await editVideo(videoId, { title: 'Before' });
    await sendVideo(videoId);
    const live = () =>
      untilSheet(videoId, (sheet) => sheet.channels.every(({ drop }) => !drop || drop.state === 'live'));
    await live();
    await editVideo(videoId, { title: 'After', tags: { way: 'add', items: ['oak'] } });
    await editOnChannel(videoId, { channelId: idOf('Marrow Quay Films'), set: { privacy: 'link' } });
    expect((await channelOf(videoId)).changes).toEqual([
      { part: 'title', field: 'title', was: 'Before', is: 'After' },
      { part: 'tags', field: 'tags', was: '', is: 'oak' },
    ]);
    const films = (await channelOf(videoId, 'Marrow Quay Films')).changes;
    expect(films[0]).toEqual({ part: 'privacy', field: 'privacy', was: 'private', is: 'by link only' });
    await actOnDrop((await channelOf(videoId)).drop?.id ?? '', { action: 'revise' });
    await live();
    expect((await channelOf(videoId)).changes).toEqual([]);
    expect((await channelOf(videoId, 'Marrow Quay Films')).changes).toHaveLength(3);
    await editVideo(videoId, { summary: 'For both' });
    expect((await reviseVideo(videoId)).sent.sort()).toEqual(['Marrow Quay', 'Marrow Quay Films']);
    await untilGiven(videoId);
    expect(await reviseVideo(videoId)).toEqual({ sent: [], notReady: [] });
  });
});

describe('a drop that its site keeps putting off', () => {
  it('needs a person after a time, while it goes on trying', async () => {
    await setFaults({ kind: 'answer', status: 503, retryAfter: 1, match: 'put-off' });
    const videoId = await ready('put-off.mp4');
    await setFaults({ kind: 'answer', status: 503, retryAfter: 1, path: '/videos' });
    await sendVideo(videoId);
    const waiting = await untilSheet(videoId, (sheet) => onlyDrop(sheet).waiting?.includes('asks to wait') ?? false);
    expect(onlyDrop(waiting).overdue).toBeUndefined();
    // The clock is set forward by setting back since when.
    await database()('drops')
      .where({ videoId })
      .update({ putOffSince: new Date(Date.now() - 16 * 60_000) });
    const late = onlyDrop(await lookAtSheet(videoId));
    expect(late.overdue).toBeGreaterThanOrEqual(16);
    const [row] = (await lookAtBoard({ ids: [videoId] })).rows;
    expect(row?.group).toBe('needs you');
    await setFaults();
    const done = await untilState(videoId, 'live');
    expect(done.overdue).toBeUndefined();
    expect((await videosAtLanternfold()).filter(({ fileName }) => fileName === 'put-off.mp4')).toHaveLength(1);
  });
});

describe('pictures', () => {
  it('of an upright video stand in the shape that each site wants', async () => {
    const upright = makeClip({ name: 'upright.mp4', seconds: 2, size: '360x640' });
    const { videoId, cutId } = await bringLocalFile(upright, { anyway: true });
    await editVideo(videoId, { forChildren: false });
    for (const name of ['Marrow Quay', 'Marrow Quay Films']) await tickChannel(videoId, idOf(name), true);
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
    const missing = async () =>
      (await lookAtSheet(videoId)).channels.filter(({ ticked }) => ticked).flatMap((channel) => channel.missing);
    const habit = { way: 'moment', at: { num: 1, den: 1 } };
    await editVideo(videoId, { picture: habit });
    await untilSheet(videoId, ({ picture }) => picture?.byHabit === true);
    expect(await missing()).toEqual([]);
    const { takeFrameAsPicture } = await import('@/desk/video/pictures');
    await takeFrameAsPicture(videoId, { seconds: 1.5 });
    expect(await missing()).toEqual([]);
    await sendVideo(videoId);
    await untilSheet(videoId, (sheet) => sheet.channels.every(({ drop }) => !drop || drop.state === 'live'));
    expect((await cutById(database(), cutId))?.facts?.video).toMatchObject({ width: 360, height: 640 });
  });

  it('by habit never take the place of one that a person chose meanwhile, and old ones go', async () => {
    const videoId = await ready('habit.mp4');
    const { makeHabitPicture, takeFrameAsPicture } = await import('@/desk/video/pictures');
    await editVideo(videoId, { picture: { way: 'moment', at: { num: 1, den: 1 } } });
    await untilSheet(videoId, ({ picture }) => picture?.byHabit === true);
    const habits = async () => database()('pictures').where({ videoId, byHabit: true });
    for (const num of [1, 2, 3, 4]) {
      await editVideo(videoId, { picture: { way: 'moment', at: { num, den: 2 } } });
      await makeHabitPicture(videoId);
    }
    await expect.poll(async () => (await habits()).length).toBe(1);
    const making = Promise.all([1, 2, 3].map(() => makeHabitPicture(videoId)));
    await takeFrameAsPicture(videoId, { seconds: 2 });
    await making;
    expect((await lookAtSheet(videoId)).picture).toMatchObject({ source: 'frame', byHabit: false });
  });
});

import { mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { chapterLines, NO_CHOICE } from '@/core/chapters';
import { MARKER_WRITERS } from '@/core/markers';
import { chapterText, fraction } from '@/core/time';
import { redo, undo } from '@/desk/changes/changes';
import { announceCut, noteCutArrived } from '@/desk/cut/bring-cut';
import { recordOf } from '@/desk/drop/record';
import { discardVideo } from '@/desk/video/delete-video';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { editMarkers, exportMarkers, importMarkers } from '@/desk/video/markers';
import { bringPicture, takeFrameAsPicture } from '@/desk/video/pictures';
import { lookAtHealth } from '@/desk/views/health';
import { lookAtMarkers } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { readFacts } from '@/media/facts';
import { takeFrame } from '@/media/frames';
import { closeDatabase, database } from '@/store/database';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { bytesToCome } from '@/store/record/cuts';
import { makeClip } from '../setup/clips';
import { announcedCut, bringFile, channelsOfTheYard, connectedChannels, yardSession } from '../setup/desk';
import { workOnAll } from '../setup/jobs';
import { manyVideos } from '../setup/many-videos';

afterAll(closeDatabase);

const clip = makeClip({ name: 'desk.mp4', seconds: 40, rate: '30000/1001' });

async function readVideo(file = clip, name?: string) {
  const videoId = await bringFile(file, 'Marrow Quay', name);
  await workOnAll('read');
  return videoId;
}

async function chapterTextOf(videoId: string): Promise<string> {
  const { chapters, cut } = await recordOf(database(), videoId);
  return chapterText(chapterLines(chapters, cut?.facts?.duration));
}

describe('facts of a cut', () => {
  it('are exact', async () => {
    const { cut } = await lookAtSheet(await readVideo());
    expect(cut?.facts).toMatchObject({
      container: 'mp4',
      video: { codec: 'h264', width: 320, height: 180, rate: { num: 30000, den: 1001 } },
      audio: { codec: 'aac', channels: 1, sampleRate: 44100 },
    });
    expect(cut?.facts?.duration.num).toBeGreaterThan(0);
  });

  it('say of a bad file what is wrong and what to do', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bad-'));
    const bad = (name: string, bytes: Buffer) => {
      const file = path.join(folder, name);
      writeFileSync(file, bytes);
      return file;
    };
    const whole = readFileSync(clip);
    const text = bad('notes.mp4', Buffer.from('these are only words'));
    const short = bad('short.mp4', whole);
    truncateSync(short, Math.floor(whole.length / 2));
    const sound = bad('sound.mp4', whole.subarray(0, 40));
    for (const [file, says] of [
      [text, /not a video file/],
      [short, /breaks off: its last \d+ bytes are missing/],
      [sound, /no video in this file/],
    ] as const) {
      const { cut } = await lookAtSheet(await readVideo(file));
      expect(cut?.state).toBe('refused');
      expect(cut?.refusal).toMatch(says);
    }
    await expect(readFacts(text, 0)).rejects.toThrow(/empty/);
  });

  it('give the frame that was asked for, to the frame', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-frame-'));
    const facts = await readFacts(clip, readFileSync(clip).length);
    const digests = new Set<string>();
    for (const frame of [100, 101, 102]) {
      const to = path.join(folder, `${frame}.jpg`);
      await takeFrame(clip, to, fraction(frame * 1001, 30000), facts.video.rate);
      digests.add((await sharp(to).stats()).channels.map((channel) => channel.sum).join());
    }
    expect(digests.size).toBe(3);
  });
});

describe('bringing a cut', () => {
  it('refuses an empty file, and one that the disk has no room for', async () => {
    await expect(announceCut({ fileName: 'a.mp4', size: 0 })).rejects.toMatchObject({ kind: 'not taken' });
    // Beside the 200 MiB that stay free, and what other files have been promised.
    const promised = await bytesToCome(database());
    const free = vi.spyOn(files(), 'free').mockResolvedValue(300 * 1024 * 1024 + promised);
    await expect(announceCut({ fileName: 'a.mp4', size: 1e9 })).rejects.toMatchObject({
      kind: 'full',
      message: expect.stringContaining('100 MiB are free'),
    });
    const { id, videoId } = await announcedCut({ fileName: 'first.mp4', size: 60 * 1024 * 1024 });
    const second = { fileName: 'second.mp4', size: 60 * 1024 * 1024 };
    await expect(announceCut(second)).rejects.toMatchObject({ message: expect.stringContaining('40.0 MiB are free') });
    await database()('cuts')
      .where({ id })
      .update({ heardAt: new Date(Date.now() - 48 * 3_600_000) });
    expect(await announceCut(second)).toMatchObject({ goesOn: false });
    await discardVideo(videoId);
    free.mockRestore();
  });

  it('knows a file again whose transfer broke off', async () => {
    const file = { size: 1000, fingerprint: 'f-again' };
    const first = await announcedCut({ ...file, fileName: 'again.mp4' });
    expect(await announceCut({ ...file, fileName: 'renamed.mp4' })).toMatchObject({
      goesOn: true,
      cut: { id: first.id },
    });
    await noteCutArrived(first.id, 1000);
    // Here as a whole, it is named; a second video of it is made only where that is said.
    const known = { known: { videoId: first.videoId, title: 'Again' } };
    expect(await announceCut({ ...file, fileName: 'again.mp4' })).toEqual(known);
    expect(await announceCut({ ...file, fileName: 'again.mp4', anyway: true })).toMatchObject({ goesOn: false });
    await workOnAll('read');
  });

  it('takes a file again that was deleted here, as one that it does not have', async () => {
    const file = { size: 1000, fingerprint: 'f-gone', fileName: 'gone.mp4' };
    const first = await announcedCut(file);
    await noteCutArrived(first.id, 1000);
    expect(await announceCut(file)).toMatchObject({ known: { videoId: first.videoId } });
    await database()('cuts').where({ id: first.id }).update({ goneAt: new Date() });
    const again = await announcedCut(file);
    expect(again.id).not.toBe(first.id);
    await discardVideo(again.videoId);
  });

  it('never takes a path from a file name', async () => {
    const cut = await announcedCut({ fileName: '../../etc/passwd.mp4', size: 10 });
    expect(cut.fileName).toBe('passwd.mp4');
    expect(cut.fileKey).toBe(`cuts/${cut.id}`);
    expect(() => files().localPath('cuts/../../x')).toThrow();
  });

  it('deletes a video that was not sent, with its file', async () => {
    const videoId = await readVideo();
    const { cut } = await lookAtSheet(videoId);
    await discardVideo(videoId);
    await expect(lookAtSheet(videoId)).rejects.toMatchObject({ kind: 'not found' });
    await expect(files().size(`cuts/${cut?.id}`)).rejects.toThrow();
  });
});

describe('the record', () => {
  it('takes ticks of many new videos at once: none waits for another until the database ends one of them', async () => {
    const channels = [...(await channelsOfTheYard()).values()];
    const videos = await manyVideos(30, []);
    await Promise.all(
      videos.map(async (id) => {
        for (const channelId of channels) await tickChannel(id, channelId, true);
      }),
    );
    const drops = await database()('drops').whereIn('videoId', videos).select('id');
    expect(drops).toHaveLength(videos.length * channels.length);
    // They would be among the first of the Board, for every test after this.
    await database()('videos').whereIn('id', videos).delete();
  });

  it('keeps every sign, undoes and redoes each change', async () => {
    const videoId = await readVideo(clip, 'undo_me.mp4');
    await editVideo(videoId, { title: 'Keel 🛶 <b>"\'' });
    await editVideo(videoId, { tags: { way: 'add', items: ['a', 'A', ' b '] }, privacy: 'link' });
    const sheet = () => lookAtSheet(videoId);
    expect(await sheet()).toMatchObject({
      title: 'Keel 🛶 <b>"\'',
      values: { tags: ['a', 'b'], privacy: 'link' },
      titleFrom: 'person',
    });
    for (const field of ['privacy', 'tags', 'titled']) expect(await undo(videoId)).toEqual({ field, kept: [] });
    expect(await sheet()).toMatchObject({ title: 'Undo me', values: { tags: [], privacy: 'private' }, canRedo: true });
    await redo(videoId);
    expect((await sheet()).title).toBe('Keel 🛶 <b>"\'');
    await editVideo(videoId, { summary: 'new' });
    expect((await sheet()).canRedo).toBe(false);
  });

  it('takes one thought of typing back as one', async () => {
    const videoId = await readVideo();
    for (const text of ['W', 'We', 'We cut']) await editVideo(videoId, { summary: text });
    await undo(videoId);
    expect((await lookAtSheet(videoId)).summary).toBe('');
  });

  it('refuses what is no field, or no value of it', async () => {
    const videoId = await readVideo();
    await expect(editVideo(videoId, { privacy: 'nobody' })).rejects.toThrow(/privacy/);
    await expect(editVideo(videoId, { pictureId: "' OR 1=1" })).rejects.toThrow(/no id/);
    await expect(editVideo(videoId, { id: 'x' })).rejects.toThrow(/unspecified/);
  });

  it('ticks channels, and undoes a tick', async () => {
    const videoId = await readVideo();
    const channelId = (await connectedChannels()).get('Tide Notes') ?? '';
    await tickChannel(videoId, channelId, true);
    const ticked = async () => (await lookAtSheet(videoId)).channels.find((each) => each.id === channelId)?.ticked;
    expect(await ticked()).toBe(true);
    await undo(videoId);
    expect(await ticked()).toBe(false);
  });

  it('takes markers of a file, and leaves it to the manager which of them are for viewers', async () => {
    const videoId = await readVideo();
    const vtt = 'WEBVTT\n\n00:00.000 --> 00:12.000\nA\n\n00:12.000 --> 00:25.000\nB\n\n00:25.000 --> 00:40.000\nC';
    await importMarkers(videoId, new TextEncoder().encode(vtt));
    expect(await chapterTextOf(videoId)).toBe('');
    await editVideo(videoId, { chapterChoice: { ...NO_CHOICE, colours: [''] } });
    expect(await chapterTextOf(videoId)).toBe('0:00 A\n0:12 B\n0:25 C');
    const edl =
      'TITLE: x\nFCM: NON-DROP FRAME\n001 AX V C 00:00:00:00 00:00:40:00 01:00:00:00 01:00:40:00\n* LOC: 01:00:01:00 RED no\n* LOC: 01:00:00:00 GREEN yes\n';
    await importMarkers(videoId, new TextEncoder().encode(edl));
    const { chapters, markers, video } = await recordOf(database(), videoId);
    expect([chapters.length, markers.length]).toEqual([0, 2]);
    expect(video.timeLine).toMatchObject({ startFrame: 108_000, dropFrame: false });
    await undo(videoId);
    expect(await chapterTextOf(videoId)).toBe('0:00 A\n0:12 B\n0:25 C');
  });
});

describe('markers by hand', () => {
  const marker = (frame: number, name: string) => {
    const words = { name, note: '', colour: 'green' };
    return { id: newId(), isNew: true, time: { num: frame * 1001, den: 30000 }, ...words };
  };

  it('are put, changed, taken away and undone, each as one change, a hundred times', async () => {
    const videoId = await readVideo();
    const names = async () => (await lookAtMarkers(videoId)).markers.map((each) => each.name);
    await editMarkers(videoId, { put: [marker(30, 'B'), marker(0, 'A')] });
    const { version, markers } = await lookAtMarkers(videoId);
    const [first] = markers;
    expect(first).toMatchObject({ name: 'A', on: 'timeline', kind: 'by choice' });
    await editMarkers(videoId, { put: [{ ...marker(60, 'A moved'), id: first?.id, isNew: false }] });
    expect((await lookAtMarkers(videoId)).version).toBeGreaterThan(version);
    expect(await names()).toEqual(['B', 'A moved']);
    for (let n = 0; n < 100; n += 1) await editMarkers(videoId, { put: [marker(n + 100, `n${n}`)] });
    expect(await names()).toHaveLength(102);
    for (let n = 0; n < 100; n += 1) await undo(videoId);
    expect(await names()).toEqual(['B', 'A moved']);
    await undo(videoId);
    expect(await names()).toEqual(['A', 'B']);
    await redo(videoId);
    expect(await names()).toEqual(['B', 'A moved']);
    await editMarkers(videoId, { remove: (await lookAtMarkers(videoId)).markers.map((each) => each.id) });
    expect(await names()).toEqual([]);
    await undo(videoId);
    expect(await names()).toHaveLength(2);
  });

  it('are notes until somebody says which colour is for viewers, the first one too', async () => {
    const videoId = await readVideo();
    await editMarkers(videoId, { put: [marker(0, 'A')] });
    expect(await lookAtSheet(videoId)).toMatchObject({ chapterChoice: NO_CHOICE, chaptersChosen: undefined });
    expect(await chapterTextOf(videoId)).toBe('');
  });

  it('refuses one that is gone, and times that are none', async () => {
    const videoId = await readVideo();
    const bad = { ...marker(0, 'x'), time: { num: 1, den: 0 } };
    await expect(editMarkers(videoId, { put: [bad] })).rejects.toThrow(/den/);
    const gone = { ...marker(0, 'x'), isNew: false };
    await expect(editMarkers(videoId, { put: [gone] })).rejects.toMatchObject({ kind: 'not found' });
  });

  it('go out in every format, all or only the chapters', async () => {
    const videoId = await readVideo();
    const put = [marker(0, 'Seen'), { ...marker(360, 'A note to the team'), colour: 'red' }];
    await editMarkers(videoId, { put });
    await expect(exportMarkers(videoId, 'vtt', true)).rejects.toMatchObject({ kind: 'not now' });
    await editVideo(videoId, { chapterChoice: { ...NO_CHOICE, colours: ['green'] } });
    for (const format of Object.keys(MARKER_WRITERS)) {
      expect(await exportMarkers(videoId, format, false)).toContain('A note to the team');
      expect(await exportMarkers(videoId, format, true)).not.toContain('A note to the team');
    }
    // The last chapter ends with what was exported, which is the whole file.
    const { duration } = (await lookAtSheet(videoId)).cut?.facts ?? {};
    const [, end = ''] = /--> (\S+)/.exec(await exportMarkers(videoId, 'vtt', true)) ?? [];
    const [minutes = 0, seconds = 0] = end.split(':').slice(1).map(Number);
    expect(minutes * 60 + seconds).toBeCloseTo(duration ? duration.num / duration.den : 0, 2);
    await expect(exportMarkers(videoId, 'toString', false)).rejects.toMatchObject({ kind: 'not taken' });
  });

  it('a marker that becomes no chapter is no cue either', async () => {
    const videoId = await readVideo();
    await editMarkers(videoId, { put: [marker(0, 'One'), marker(2, 'Same second')] });
    await editVideo(videoId, { chapterChoice: { ...NO_CHOICE, colours: ['green'] } });
    const vtt = await exportMarkers(videoId, 'vtt', true);
    expect(vtt).toContain('One');
    expect(vtt).not.toContain('Same second');
  });

  it('come from a table by its columns: what stands between them makes no time line drop-frame', async () => {
    const videoId = await readVideo();
    const rows = (sign: string, code: string) =>
      [`Name${sign}In${sign}Out${sign}Colour`, `One${sign}01:00:00:00${sign}01:00:10:00${sign}green`]
        .concat(`Two${sign}${code}${sign}01:02:00:00${sign}green`)
        .join('\n');
    for (const sign of [',', ';', '\t']) {
      const table = new TextEncoder().encode(rows(sign, '01:01:00:00'));
      // At 29.97 drop-frame there is no 01:01:00:00: it would be refused, or moved.
      const { markers, findings } = await importMarkers(videoId, table, 'replace', { fileName: 'm.csv' });
      expect(markers).toBe(2);
      expect(findings.filter(({ done }) => done === 'left it out')).toEqual([]);
      expect((await lookAtSheet(videoId)).timeLine.dropFrame).toBe(false);
      const [, two] = (await lookAtMarkers(videoId)).markers;
      expect(two?.time).toEqual({ num: 3003, den: 50 });
    }
    const drop = new TextEncoder().encode(rows(',', '01:01:00;02').replace(/:(\d\d)(?=,)/g, ';$1'));
    await importMarkers(videoId, drop, 'replace', { fileName: 'm.csv' });
    expect((await lookAtSheet(videoId)).timeLine.dropFrame).toBe(true);
  });
});

describe('pictures', () => {
  it('are taken from the cut or a file; what is none is refused', async () => {
    const videoId = await readVideo();
    await takeFrameAsPicture(videoId, { seconds: 3 });
    expect((await lookAtSheet(videoId)).picture).toMatchObject({ width: 1280, height: 720, source: 'frame' });
    const png = await sharp({ create: { width: 640, height: 480, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    await bringPicture(videoId, Readable.from([png]));
    const sheet = await lookAtSheet(videoId);
    expect(sheet.picture).toMatchObject({ width: 640, source: 'file' });
    const missing = sheet.channels.find((channel) => channel.ticked)?.missing.map((each) => each.what);
    expect(missing).toContain('The picture is 640 wide; Lanternfold wants at least 1000');
    const bad = bringPicture(videoId, Readable.from([Buffer.from('no picture')]));
    await expect(bad).rejects.toMatchObject({ kind: 'not taken' });
    expect((await lookAtSheet(videoId)).picture?.width).toBe(640);
  });
});

describe('secrets and health', () => {
  it('keeps no token in clear in the database', async () => {
    const token = await (await yardSession('lanternfold')).accessToken();
    expect(token.length).toBeGreaterThan(10);
    const rows: { sealedTokens: string }[] = await database()('accounts').select('sealedTokens');
    expect(rows.length).toBeGreaterThan(0);
    for (const { sealedTokens } of rows) {
      expect(sealedTokens).toMatch(/^\w+\./);
      for (const secret of [token, Buffer.from(token).toString('base64').replaceAll('=', '')]) {
        expect(sealedTokens).not.toContain(secret);
      }
    }
  });

  it('says that no worker is heard where none runs', async () => {
    await database()('workers').delete();
    const health = await lookAtHealth();
    expect(health).toMatchObject({ well: false, database: { well: true }, worker: { well: false } });
  });
});

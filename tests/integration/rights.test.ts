import { execFileSync } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { readNow } from '@/desk/differences/read-now';
import { sendVideo } from '@/desk/drop/send';
import { bringSound } from '@/desk/rights/bring-sound';
import { settleMatches } from '@/desk/rights/settle-matches';
import { editOnChannel, editVideo } from '@/desk/video/edit-video';
import { lookAtNotices } from '@/desk/views/look-at-notices';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { matchesOf } from '@/store/drop/rights-matches';
import { makeClip } from '../setup/clips';
import { bringFile, changedAt, onlyDrop, setFaults, untilSheet, untilState, videosAtLanternfold } from '../setup/desk';
import { AAC, H264, made, PICTURE } from '../setup/made-files';
import { aWorker } from '../setup/worker';

aWorker();
const clip = makeClip({ name: 'rights.mp4', seconds: 4 });

/** A video that has come to a match from 1 s to 2 s of it. */
async function matched(fileName: string, wants = 'share', more: Record<string, unknown>[] = [], file = clip) {
  const match = {
    kind: 'rights match',
    match: fileName.replace('.mp4', ''),
    wants,
    from: 1,
    to: 2,
    value: 'Slow Tide',
  };
  await setFaults({ ...match, reason: 'Harbour Lane Music' }, ...more);
  const videoId = await bringFile(file, 'Marrow Quay', fileName);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await editVideo(videoId, { privacy: 'everyone' });
  await sendVideo(videoId);
  const drop = await untilState(videoId, 'snag');
  const [found] = await matchesOf(database(), [drop.id]);
  if (!found) throw new Error('no match was kept');
  return { videoId, drop, found };
}

const there = async (fileName: string) =>
  (await videosAtLanternfold()).filter((video) => video.fileName === fileName) as {
    id: string;
    seconds: number;
    matches?: { state: string; dispute?: { text: string } }[];
  }[];

/** The loudest sample of a span of the file that the site got, in dB. */
function loudest(id: string, from: number, to: number): number {
  const file = `${process.env.KETTLE_HOME}/stand-ins/lanternfold/files/${id}`;
  const args = ['-hide_banner', '-ss', String(from), '-i', file, '-t', String(to - from), '-af', 'volumedetect', '-vn'];
  const said = execFileSync('bash', ['-c', 'ffmpeg "$@" -f null - 2>&1', 'ffmpeg', ...args], { encoding: 'utf8' });
  return Number(/max_volume: (-?[\d.]+) dB/.exec(said)?.[1]);
}

const says = async (videoId: string) =>
  (await lookAtSheet(videoId)).channels.flatMap(({ events }) => events.map((event) => event.says)).join('\n');

beforeEach(() => setFaults());
afterAll(() => setFaults());

describe('a rights match', () => {
  it('is kept with owner, work, span and what it asks', async () => {
    const { found, videoId } = await matched('kept.mp4');
    expect(found).toMatchObject({
      ...{ owner: 'Harbour Lane Music', work: 'Slow Tide', asks: 'income', state: 'open', countries: [] },
      ...{ from: { num: 1, den: 1 }, to: { num: 2, den: 1 } },
    });
    expect(await says(videoId)).toContain('Rights match 0:01–0:02, “Slow Tide”: Harbour Lane Music wants a share');
  });

  it('is silenced in a new file, the rest of which is as loud as before; undo leaves what is there', async () => {
    const { videoId, drop, found } = await matched('silenced.mp4');
    await settleMatches(drop.id, { ways: [{ match: found.id, way: 'silence' }] });
    const live = await untilState(videoId, 'live');
    expect(live.link).not.toBe(drop.link);
    const [video, ...others] = await there('silenced.mp4');
    expect(others).toEqual([]);
    expect(video?.matches).toBeUndefined();
    expect(loudest(video?.id ?? '', 1.05, 1.95)).toBeLessThan(-80);
    expect(loudest(video?.id ?? '', 0.2, 0.9)).toBeGreaterThan(-25);
    expect(loudest(video?.id ?? '', 2.1, 3.5)).toBeGreaterThan(-25);
    expect((await lookAtSheet(videoId)).renditions.map(({ around }) => around)).toContainEqual(
      expect.stringMatching(/^All other sound is as it was, but for up to 0\.\d\d s around\.$/),
    );
    await undo(videoId);
    expect(onlyDrop(await lookAtSheet(videoId)).state).toBe('live');
  });

  it('is found again where the sound only got quieter, and not where other sound takes its place', async () => {
    const { videoId, drop, found } = await matched('swapped.mp4');
    const tone = made('other-music.wav', '-f', 'lavfi', '-i', 'sine=f=990:r=48000:d=2', '-af', 'volume=0.3');
    const { id: sound } = await bringSound(videoId, 'other-music.wav', createReadStream(tone));
    await settleMatches(drop.id, { ways: [{ match: found.id, way: 'swap', sound }] });
    await untilState(videoId, 'live');
    const [video] = await there('swapped.mp4');
    expect(video?.matches).toBeUndefined();
    expect(loudest(video?.id ?? '', 1.1, 1.9)).toBeGreaterThan(-40);
  });

  it('goes with its span, and the file is shorter by just that', async () => {
    // Loud for that second alone, so that the site can tell that it is gone.
    const tone = "aevalsrc='if(between(t,1,2),0.5,0.05)*sin(2*PI*330*t)':d=4:s=48000";
    const loud = made('loud-part.mp4', ...PICTURE, '-f', 'lavfi', '-i', tone, ...H264, ...AAC);
    const { videoId, drop, found } = await matched('left-out.mp4', 'close', [], loud);
    // What somebody sets for the channel at the same moment stays.
    await Promise.all([
      settleMatches(drop.id, { ways: [{ match: found.id, way: 'leave out' }] }),
      editOnChannel(videoId, { channelId: drop.channelId, set: { title: 'Set meanwhile' } }),
    ]);
    expect((await dropById(database(), drop.id))?.own).toMatchObject({ title: 'Set meanwhile', mends: {} });
    await untilState(videoId, 'live');
    expect((await there('left-out.mp4'))[0]?.seconds).toBeCloseTo(3, 1);
  });

  it('is disputed: it waits for the answer, and goes on by itself where the owner lets it go', async () => {
    const { videoId, drop, found } = await matched('disputed.mp4');
    const text = 'We have a licence for this piece, number 2214, until 2028.';
    await settleMatches(drop.id, { ways: [{ match: found.id, way: 'dispute', text }] });
    expect((await there('disputed.mp4'))[0]?.matches?.[0]).toMatchObject({ dispute: { text } });
    await untilState(videoId, 'live');
    expect(await says(videoId)).toContain('The match with “Slow Tide” has ended: Harbour Lane Music asks for nothing');
  });

  it('comes back with the answer where the owner stays with it; it can still be agreed to, and not disputed twice', async () => {
    const refused = { kind: 'dispute refused', match: 'upheld', reason: 'The licence does not cover video' };
    const { videoId, drop, found } = await matched('upheld.mp4', 'silence', [refused]);
    const ways = [{ match: found.id, way: 'dispute', text: 'We think that this is our own recording.' }];
    await settleMatches(drop.id, { ways });
    const sheet = await untilSheet(videoId, (each) => onlyDrop(each).snag?.what.includes('does not cover') ?? false);
    await expect(settleMatches(drop.id, { ways })).rejects.toThrow('can be disputed once');
    await actOnDrop(onlyDrop(sheet).id, { action: 'accept' });
    await untilState(videoId, 'live');
    expect((await matchesOf(database(), [drop.id]))[0]?.state).toBe('agreed');
  });

  it('is left behind with the file, where another one is sent', async () => {
    const { videoId, drop } = await matched('other-file.mp4');
    await setFaults();
    const better = makeClip({ name: 'rights-better.mp4', seconds: 3 });
    await bringLocalFile(better, { fileName: 'other-file.mp4', videoId });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).otherFile);
    await actOnDrop(drop.id, { action: 'try again' });
    await untilState(videoId, 'live');
    expect((await there('other-file.mp4')).map(({ seconds }) => Math.round(seconds))).toEqual([3]);
  });

  it('that is found while the video is live is mended beside it: people see the old one until the new one is checked', async () => {
    const { videoId, drop, found } = await matched('found-later.mp4');
    await actOnDrop(drop.id, { action: 'accept' });
    const { link = '' } = await untilState(videoId, 'live');
    await setFaults();
    const [video] = await there('found-later.mp4');
    const isMatched = async () => onlyDrop(await lookAtSheet(videoId)).matched;
    const asks = async (wants: string) => {
      const again = { ...video?.matches?.[0], state: 'open', wants };
      await changedAt('lanternfold', 'found-later.mp4', { matches: [again] });
      await readNow(drop.id);
      expect(await isMatched()).toBe(true);
    };
    await asks('share');
    await actOnDrop(drop.id, { action: 'accept' });
    expect([await isMatched(), (await there('found-later.mp4'))[0]?.matches?.[0]?.state]).toEqual([false, 'agreed']);
    // The owner comes back with more.
    await asks('silence');
    await settleMatches(drop.id, { ways: [{ match: found.id, way: 'silence' }] });
    const replacing = onlyDrop(await untilSheet(videoId, (sheet) => onlyDrop(sheet).replacing));
    expect(replacing.state).not.toBe('live');
    expect((await fetch(link)).status).toBe(200);
    const live = onlyDrop(
      await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live' && onlyDrop(sheet).link !== link),
    );
    expect([(await fetch(link)).status, (await fetch(live.link ?? '')).status]).toEqual([404, 200]);
    const files = await there('found-later.mp4');
    const mended = files.find(({ id }) => id !== video?.id);
    expect(mended?.matches).toBeUndefined();
    expect(loudest(mended?.id ?? '', 1.05, 1.95)).toBeLessThan(-80);
  });

  it('is told of once by two readings at once; another wish of its owner is told, and one that is gone asks for nothing', async () => {
    const videoId = await bringFile(clip, 'Marrow Quay', 'read-twice.mp4');
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
    await editVideo(videoId, { privacy: 'everyone', title: 'Read twice' });
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'live');
    const span = { from: 1, to: 2, owner: 'Harbour Lane Music', work: 'Slow Tide', countries: [] };
    const stands = (...matches: object[]) => changedAt('lanternfold', 'read-twice.mp4', { matches });
    const tellings = async () =>
      (await lookAtNotices()).notices.filter(({ video }) => video === 'Read twice').map((notice) => notice.says);
    const told = async () => (await tellings()).filter((each) => each.startsWith('Rights match'));
    await stands({ ...span, id: 'm-1', wants: 'share', state: 'open' });
    await Promise.all([readNow(id), readNow(id), readNow(id)]);
    expect(await told()).toEqual([
      'Rights match with “Slow Tide”: Harbour Lane Music wants a share of what the video earns',
    ]);
    await stands({ ...span, id: 'm-1', wants: 'silence', state: 'open' });
    await readNow(id);
    expect((await told())[0]).toContain('wants the sound off there');
    expect((await matchesOf(database(), [id]))[0]?.asks).toBe('silence');
    await readNow(id);
    expect(await told()).toHaveLength(2);
    await stands();
    await readNow(id);
    expect(onlyDrop(await lookAtSheet(videoId)).matched).toBe(false);
    expect(await says(videoId)).toContain('has ended: Harbour Lane Music asks for nothing any more');
  });

  it('refuses what does not lead anywhere, and says why', async () => {
    const { videoId, drop, found } = await matched('refused.mp4', 'close');
    const settle = (way: Record<string, unknown>) => settleMatches(drop.id, { ways: [{ match: found.id, ...way }] });
    await expect(settle({ way: 'agree' })).rejects.toThrow('leaves nothing to agree to');
    await expect(settle({ way: 'dispute', text: 'No.' })).rejects.toThrow('at least 20 characters');
    await expect(settle({ way: 'swap' })).rejects.toThrow('Add the sound');
    await expect(settleMatches(drop.id, { ways: [] })).rejects.toThrow('Choose a way on');
    await expect(settleMatches(drop.id, { ways: [{ match: 'none', way: 'agree' }] })).rejects.toThrow('not there any');
    const picture = made('no-sound.png', '-f', 'lavfi', '-i', 'color=s=16x16:d=1', '-frames:v', '1');
    await expect(bringSound(videoId, 'no-sound.png', createReadStream(picture))).rejects.toThrow('no sound in this');
    expect(onlyDrop(await lookAtSheet(videoId)).state).toBe('snag');
  });
});

import { beforeAll, describe, expect, it } from 'vitest';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { lookAtMeasuring, stopMeasuring } from '@/desk/cut/measuring';
import { workOnCutAgain } from '@/desk/cut/work-again';
import { sendVideo } from '@/desk/drop/send';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtMeasures } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { bringFile, channelsOfTheYard, connectedChannels, untilSheet } from '../setup/desk';
import { AAC, H264, made } from '../setup/made-files';
import { aWorker } from '../setup/worker';

const worker = aWorker();

/** So many seconds that move, then three of black. */
function tail(name: string, seconds: number): string {
  const moving = ['-f', 'lavfi', '-i', `testsrc2=s=320x180:r=25:d=${seconds}`];
  const black = ['-f', 'lavfi', '-i', `color=black:s=320x180:r=25:d=3`];
  const tone = ['-f', 'lavfi', '-i', `sine=f=440:r=48000:d=${seconds + 3}`];
  const joined = ['-filter_complex', '[0][1]concat=n=2:v=1:a=0[v]', '-map', '[v]', '-map', '2:a'];
  return made(name, ...moving, ...black, ...tone, ...joined, ...H264, ...AAC);
}

beforeAll(() => channelsOfTheYard());

const rulesOf = async (videoId: string) => (await lookAtSheet(videoId)).fileFindings.map(({ rule }) => rule);

describe('looking a file over', () => {
  it('can be stopped, and is done when it is asked for again', async () => {
    const { videoId } = await bringLocalFile(tail('stopped.mp4', 8), { fileName: 'stopped.mp4' });
    const { cut } = await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
    const id = cut?.id ?? '';
    await untilSheet(videoId, ({ measured }) => measured === 'ready');
    await worker.end();
    await database()('measurements').where({ cutId: id }).update({ state: 'failed', found: null });
    await workOnCutAgain(id, { kind: 'measure' });
    // Nobody is there who could begin.
    expect(await lookAtMeasuring(id)).toBeUndefined();
    await stopMeasuring(id);
    await expect(stopMeasuring(id)).rejects.toThrow('not being looked over');
    expect((await lookAtSheet(videoId)).measured).toBe('failed');
    expect(await rulesOf(videoId)).not.toContain('black at the end');
    worker.start();
    await new Promise((resolve) => setTimeout(resolve, 3000));
    expect((await lookAtSheet(videoId)).measured).toBe('failed');
    await workOnCutAgain(id, { kind: 'measure' });
    await untilSheet(videoId, ({ measured }) => measured === 'ready');
    expect(await rulesOf(videoId)).toContain('black at the end');
  });

  it('goes on after a worker was killed, and facts that were not asked before are read then', async () => {
    await worker.end('SIGKILL');
    const { videoId } = await bringLocalFile(tail('short.mp4', 6), { fileName: 'short.mp4' });
    worker.start();
    const { cut } = await untilSheet(videoId, ({ measured }) => measured === 'ready');
    const id = cut?.id ?? '';
    const facts = JSON.stringify({ ...cut?.facts, more: undefined });
    await database()('cuts').where({ id }).update({ facts });
    await database()('measurements').where({ cutId: id }).update({ state: 'failed' });
    await workOnCutAgain(id, { kind: 'measure' });
    await untilSheet(
      videoId,
      ({ measured, cut: now }) => measured === 'ready' && now?.facts?.more?.sounds.length === 1,
    );
    expect((await lookAtMeasures(id))?.picture?.black).toEqual([{ from: { num: 6, den: 1 }, to: { num: 9, den: 1 } }]);
  });

  it('says where much the same video went to a channel before, also as a new export', async () => {
    const colours = ['red', 'navy', 'green', 'white', 'purple', 'orange', 'teal'];
    const shots = colours.flatMap((colour, index) => [
      '-f',
      'lavfi',
      '-i',
      `color=${colour}:s=320x180:r=25:d=${1.5 + ((index * 3) % 7) / 5}`,
    ]);
    const level = 'pow(10\\,-(1+mod(floor(t/2)*4\\,5))*0.3)*sin(2*PI*440*t)';
    const joined = `${colours.map((_, index) => `[${index}]`).join('')}concat=n=7:v=1:a=0[v]`;
    const sound = [
      '-f',
      'lavfi',
      '-i',
      `aevalsrc=${level}:s=48000:d=14`,
      '-filter_complex',
      joined,
      '-map',
      '[v]',
      '-map',
      '7:a',
    ];
    const first = made('the-first.mp4', ...shots, ...sound, ...H264, ...AAC);
    const sent = await bringFile(first, 'Marrow Quay', 'the-first.mp4');
    await untilSheet(sent, ({ measured }) => measured === 'ready');
    await editVideo(sent, { privacy: 'private' });
    await sendVideo(sent);
    const again = made(
      'the-second.mp4',
      '-i',
      first,
      '-vf',
      'scale=160:90',
      '-af',
      'volume=-4dB',
      '-t',
      '13',
      ...H264,
      '-crf',
      '33',
      ...AAC,
    );
    const videoId = await bringFile(again, 'Marrow Quay Films', 'another-name.mp4');
    await untilSheet(videoId, ({ measured }) => measured === 'ready');
    // It goes elsewhere.
    expect(await rulesOf(videoId)).not.toContain('already sent');
    await tickChannel(videoId, (await connectedChannels()).get('Marrow Quay') ?? '', true);
    const { fileFindings } = await lookAtSheet(videoId);
    expect(fileFindings[0]).toMatchObject({
      level: 'warns',
      what: 'Much the same video is on Marrow Quay already: “The first”',
    });
    // Once it has gone there all the same, nothing is left to be warned of.
    await editVideo(videoId, { privacy: 'private' });
    await tickChannel(videoId, (await connectedChannels()).get('Marrow Quay Films') ?? '', false);
    await sendVideo(videoId);
    expect(await rulesOf(videoId)).not.toContain('already sent');
  });

  it('takes a reason for what is meant, for this file alone, and refuses what is none', async () => {
    const { videoId } = await bringLocalFile(tail('meant.mp4', 7), { fileName: 'meant.mp4' });
    const { cut } = await untilSheet(videoId, ({ measured }) => measured === 'ready');
    const waved = { rule: 'black at the end', cutId: cut?.id ?? '', reason: ' a pause ' };
    await editVideo(videoId, { wavedThrough: [waved] });
    expect((await lookAtSheet(videoId)).wavedThrough).toEqual([{ ...waved, reason: 'a pause' }]);
    await expect(editVideo(videoId, { wavedThrough: [{ ...waved, cutId: 'x' }] })).rejects.toThrow();
    await expect(editVideo(videoId, { wavedThrough: [{ ...waved, reason: 'x'.repeat(501) }] })).rejects.toThrow('500');
  });
});

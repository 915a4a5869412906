import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { makeClip } from '../tests/setup/clips';
import { startMachine } from '../tests/setup/machine';
import { measureOn } from './ending';
import { chanceFrom } from './faults/chance';
import { uploadsTo } from './faults/uploads';

/** A short form, for the tests: a few drops and faults, and no line that stands still for a minute. */
const SHORT = process.env.BENCH_SHORT === '1';
const SEED = Number(process.env.BENCH_SEED ?? 20261126);
const FILES = Number(process.env.BENCH_FILES ?? (SHORT ? 2 : 15));
const FAULTS = Number(process.env.BENCH_FAULTS ?? (SHORT ? 10 : 220));
const WORKERS = 3;
/** After the last fault everything has so long to come to its end. */
const REST_SECONDS = SHORT ? 120 : 420;

const machine = await startMachine([]);
const { faultKinds, chooseKind, fullDiskSettings } = await import('./faults/inject');
const { insist, liveDrops, manage } = await import('./faults/manager');
const { verdictOn } = await import('./faults/verdict');
const { channelsOfTheYard, YARD } = await import('../tests/setup/desk');
const { editVideo, tickChannel } = await import('@/desk/video/edit-video');
const { sendVideo } = await import('@/desk/drop/send');

const CHANNELS = ['Marrow Quay', 'Marrow Quay Films', '@marrowquay', 'Marrow Quay Tools'];
const ending = new AbortController();

await measureOn(machine, undefined, async () => {
  const home = machine.env.KETTLE_HOME ?? '';
  const address = `http://127.0.0.1:${machine.env.KETTLE_PORT}`;
  const processes = {
    sites: machine.start('stand-ins'),
    web: machine.start('web', fullDiskSettings(home)),
    workers: Array.from({ length: WORKERS }, () => machine.start('worker')),
  };
  const channels = await insist(channelsOfTheYard);
  const bytes = readFileSync(makeClip({ name: 'faults.mp4', seconds: 3, bitRate: '2400k' }));
  const chance = chanceFrom(SEED);
  const uploads = uploadsTo(address);
  const managing = manage(ending.signal);

  const sendOne = async (number: number) => {
    const { videoId } = await uploads.bring(`faults-${number}.mp4`, bytes, ending.signal);
    const words = { title: `Fault run ${number}`, summary: 'Through thick and thin', products: ['2000000000015'] };
    await insist(() => editVideo(videoId, { ...words, privacy: 'everyone', release: 'by itself', forChildren: false }));
    for (const name of CHANNELS) await insist(() => tickChannel(videoId, channels.get(name) ?? '', true));
    // A channel whose permission is just taken back is not ready; it is connected again, and the video sent there, too.
    while ((await insist(() => sendVideo(videoId))).notReady.length > 0) await pause(1000);
  };
  const sending = Promise.all(
    Array.from({ length: FILES }, async (_, number) => {
      await pause(number * (SHORT ? 500 : 4000));
      await sendOne(number);
    }),
  );

  const kinds = faultKinds(machine, processes, Object.keys(YARD), uploads, chance, !SHORT);
  const struck: Record<string, number> = {};
  for (let count = 0; count < FAULTS; count += 1) {
    const kind = chooseKind(kinds, chance);
    // A site or process that is just being started again cannot be told of another fault; the count says what was tried.
    await kind.strike().catch(() => undefined);
    struck[kind.name] = (struck[kind.name] ?? 0) + 1;
    await pause(chance.between(50, 600));
  }
  await sending;
  const drops = FILES * CHANNELS.length;
  for (let seconds = 0; seconds < REST_SECONDS && (await insist(liveDrops)) < drops; seconds += 1) await pause(1000);
  ending.abort();
  await managing;
  const digest = createHash('sha256').update(bytes).digest('hex');
  const verdict = await insist(async () => {
    // The last fault may have been a permission taken back, of which nobody has heard yet.
    await channelsOfTheYard();
    return verdictOn({ files: FILES, drops, digest });
  });
  const measure = 'a day of faults: kills, broken lines, full disks, and what was left of it';
  process.stdout.write(`${JSON.stringify({ measure, seed: SEED, faults: FAULTS, drops, ...verdict, struck })}\n`);
  if (verdict.lost + verdict.doubled + verdict.stuck + verdict.leftBehind + verdict.wrong > 0) process.exitCode = 1;
});

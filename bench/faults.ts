import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { momentAt } from '@/core/release';
import { makeClip } from '../tests/setup/clips';
import { chanceFrom } from './faults/chance';
import { uploadsTo } from './faults/uploads';
import { machineWith, measureOn } from './machine';
import { SHORT, say } from './say';

const SEED = Number(process.env.BENCH_SEED ?? 20261126);
const FILES = Number(process.env.BENCH_FILES ?? (SHORT ? 1 : 15));
const FAULTS = Number(process.env.BENCH_FAULTS ?? (SHORT ? 6 : 220));
const WORKERS = 3;
/** After the last fault everything has so long to come to its end. */
const REST_SECONDS = SHORT ? 120 : 420;

const machine = await machineWith([]);
const { faultKinds, chooseKind, fullDiskSettings, struckAtSites } = await import('./faults/inject');
const { insist, liveDrops, manage } = await import('./faults/manager');
const { verdictOn } = await import('./faults/verdict');
const { channelsOfTheYard, YARD } = await import('../tests/setup/desk');
const { editOnChannel, editVideo, tickChannel } = await import('@/desk/video/edit-video');
const { sendVideo } = await import('@/desk/drop/send');

const CHANNELS = ['Marrow Quay', 'Marrow Quay Films', '@marrowquay', 'Marrow Quay Tools'];
const WORDS = { summary: 'Through thick and thin', tags: ['larch', 'copper rivets'] };
/** So long after it is said those with a time may be open. */
const OPENS_AFTER_SECONDS = SHORT ? 5 : 60;
const ending = new AbortController();

await measureOn(machine, undefined, async () => {
  const home = machine.env.KETTLE_HOME ?? '';
  const address = `http://127.0.0.1:${machine.env.KETTLE_PORT}`;
  const processes = {
    sites: machine.start('stand-ins'),
    web: machine.start('web', fullDiskSettings(home)),
    workers: Array.from({ length: WORKERS }, () => machine.start('worker', fullDiskSettings(home))),
  };
  const channels = await insist(channelsOfTheYard);
  const bytes = readFileSync(makeClip({ name: 'faults.mp4', seconds: 3, bitRate: '2400k' }));
  const chance = chanceFrom(SEED);
  const uploads = uploadsTo(address);
  const managing = manage(ending.signal);

  const sendOne = async (number: number) => {
    const { videoId } = await uploads.bring(`faults-${number}.mp4`, bytes, ending.signal);
    const tags = { way: 'add', items: WORDS.tags };
    const words = { title: `Fault run ${number}`, summary: WORDS.summary, tags, products: ['2000000000015'] };
    await insist(() => editVideo(videoId, { ...words, privacy: 'everyone', release: 'by itself', forChildren: false }));
    for (const name of CHANNELS) await insist(() => tickChannel(videoId, channels.get(name) ?? '', true));
    // Every other one has a time, to be kept where its site can wait.
    if (number % 2 === 0) {
      for (const name of ['Marrow Quay', 'Marrow Quay Films']) {
        const channelId = channels.get(name) ?? '';
        await insist(() => {
          const opensAt = momentAt(new Date(Date.now() + OPENS_AFTER_SECONDS * 1000), 'UTC');
          return editOnChannel(videoId, { channelId, set: { release: 'at a time', opensAt } });
        });
      }
    }
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
  const told: Record<string, number> = {};
  let [count, untold] = [0, 0];
  while (count < FAULTS) {
    const kind = chooseKind(kinds, chance);
    try {
      await kind.strike();
      told[kind.name] = (told[kind.name] ?? 0) + 1;
      count += 1;
    } catch {
      // A site or process that is just being started again cannot be told of another fault: another one is drawn.
      untold += 1;
    }
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
    return verdictOn({ files: FILES, drops, digest, words: WORDS });
  });
  const measure = 'a day of faults: kills, broken lines, full disks, and what was left of it';
  const aims = Object.fromEntries(Object.keys(verdict).map((name) => [name, { most: 0 }]));
  say({ measure, seed: SEED, faults: count, untold, drops, ...verdict, told, struck: await struckAtSites(), aims });
  if (Object.values(verdict).some((each) => each > 0)) process.exitCode = 1;
});

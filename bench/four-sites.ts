import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { largeFile } from './large-file';
import { machineWith, measureOn } from './machine';
import { watchMemory } from './memory';
import { rounded, SHORT, say } from './say';

/** Bytes a second of the line to each site. */
const LINE = 20_000_000;
const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bench-'));
const machine = await machineWith(['stand-ins']);
const worker = machine.start('worker');
const { bringFile, setFaultsAt, untilSheet, yardSession } = await import('../tests/setup/desk');
const { lookAtChannels } = await import('@/desk/views/look');
const { lookAtSheet } = await import('@/desk/views/look-at-sheet');
const { editVideo, tickChannel } = await import('@/desk/video/edit-video');
const { sendVideo } = await import('@/desk/drop/send');
const { SITE_PROFILES } = await import('@/sites/profiles');

let channels: { id: string; name: string; site: string }[] = [];

/** Seconds from sending a new video of this size to the last byte at the last of these channels. */
async function sendTo(size: number, wanted: { id: string; site: string }[]): Promise<number> {
  const videoId = await bringFile(largeFile(folder, size), 'none of them', 'large.mp4');
  await editVideo(videoId, { privacy: 'everyone', products: ['2000000000015'] });
  for (const { id } of wanted) await tickChannel(videoId, id, true);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready', 120);
  const start = Date.now();
  const { notReady } = await sendVideo(videoId);
  if (notReady.length > 0) throw new Error(JSON.stringify(notReady));
  const events = async () =>
    (await lookAtSheet(videoId)).channels.flatMap((channel) => channel.events.filter(({ kind }) => kind === 'landed'));
  await untilSheet(
    videoId,
    (sheet) => {
      const landed = sheet.channels.filter((channel) => channel.events.some(({ kind }) => kind === 'landed'));
      return landed.length === wanted.length;
    },
    300,
  );
  const last = Math.max(...(await events()).map(({ at }) => Date.parse(at)));
  return (last - start) / 1000;
}

async function measure(size: number, wanted: typeof channels): Promise<void> {
  const alone: number[] = [];
  // Once before, so that neither is the first.
  await sendTo(size, wanted.slice(0, 1));
  for (const channel of wanted) alone.push(await sendTo(size, [channel]));
  const grown = watchMemory(worker.pid);
  const together = await sendTo(size, wanted);
  const slowest = Math.max(...alone);
  say({
    measure: 'one video to several channels at once, from send to the last byte',
    channels: wanted.map(({ site, name }) => `${site}/${name}`),
    megabytes: size / 1e6,
    seconds: rounded(together, 1),
    slowestAloneSeconds: rounded(slowest, 1),
    ratio: rounded(together / slowest, 2),
    workerGrownMebibytes: rounded(grown() / 1024 / 1024),
    aims: { ratio: { most: 1.15 } },
  });
}

await measureOn(machine, folder, async () => {
  for (const site of Object.keys(SITE_PROFILES)) {
    await yardSession(site);
    await setFaultsAt(site, { kind: 'line', bytes: LINE });
  }
  channels = (await lookAtChannels()).sites.flatMap((site) =>
    site.accounts.flatMap((account) => account.channels.map(({ id, name }) => ({ id, name, site: site.id }))),
  );

  const named = (...names: string[]) => channels.filter(({ name }) => names.includes(name));
  // Pipwire takes 256 MiB at the most, so the larger file goes to a second channel of Lanternfold in its place.
  await measure(
    SHORT ? 1_000_000 : 250_000_000,
    named('Marrow Quay', 'Marrow Quay Films', '@marrowquay', 'Marrow Quay Tools'),
  );
  if (!SHORT) await measure(500_000_000, named('Marrow Quay', 'Tide Notes', 'Marrow Quay Films', 'Marrow Quay Tools'));
});

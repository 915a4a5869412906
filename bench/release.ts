import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { momentAt } from '@/core/release';
import { makeClip } from '../tests/setup/clips';
import { allowPlentyAt } from '../tests/setup/control';
import { machineWith, measureOn } from './machine';
import { rounded, SHORT, say } from './say';

const RELEASES = SHORT ? 4 : 200;
const A_SECOND = 4;
const TOGETHER = SHORT ? 1 : 12;
/** So long after the last is ready the first opens. */
const AHEAD_SECONDS = SHORT ? 1 : 5;

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bench-'));
const machine = await machineWith(['stand-ins']);
machine.start('worker');
const { addressOf, bringFile, channelsOfTheYard, untilSheet, untilState, videosAt } = await import(
  '../tests/setup/desk'
);
const { lookAtSheet } = await import('@/desk/views/look-at-sheet');
const { editVideo, tickChannel } = await import('@/desk/video/edit-video');
const { sendVideo } = await import('@/desk/drop/send');

const inSeconds = (seconds: number) => momentAt(new Date((Math.ceil(Date.now() / 1000) + seconds) * 1000), 'UTC');

/** Videos that are ready to open on these channels, waiting for a word or a time. */
async function heldOn(names: readonly string[], count: number, release: string): Promise<string[]> {
  const ids = await channelsOfTheYard();
  const clip = makeClip({ name: 'bench-release.mp4', seconds: 2, size: '160x90' });
  const videos: string[] = [];
  for (let n = 0; n < count; n += 1) {
    const id = await bringFile(clip, 'none of them', `release-${release}-${n}.mp4`);
    await editVideo(id, { privacy: 'everyone', release, opensAt: inSeconds(36_000), title: `Release ${n}` });
    for (const name of names) await tickChannel(id, ids.get(name) ?? '', true);
    videos.push(id);
  }
  for (const id of videos) {
    await untilSheet(id, ({ cut }) => cut?.state === 'ready', 300);
    await sendVideo(id);
  }
  const held = names.length;
  for (const id of videos) {
    await untilSheet(id, ({ channels }) => channels.filter(({ drop }) => drop?.state === 'held').length === held, 900);
  }
  return videos;
}

/** When the site itself says that a video was opened, in milliseconds. */
async function openedAt(site: string): Promise<Map<string, number>> {
  const videos = await videosAt(site);
  return new Map(videos.map(({ id, publishedAt }) => [String(id), Date.parse(String(publishedAt))]));
}

const linkEnds = async (id: string) =>
  (await lookAtSheet(id)).channels.flatMap(({ drop }) => drop?.link?.split('/').at(-1) ?? []);

function spread(milliseconds: number[]): Record<string, number> {
  const sorted = [...milliseconds].sort((a, b) => a - b);
  const at = (share: number) => rounded(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0);
  return { earliest: at(0), median: at(0.5), p95: at(0.95), latest: at(1) };
}

const BETWEEN_CALLS_MILLISECONDS = 100;

/** How long the same site takes to answer a bare request, while the releases are made: in milliseconds, the middle one. */
async function bareCalls(until: Promise<unknown>): Promise<number> {
  let over = false;
  void until.finally(() => {
    over = true;
  });
  const took: number[] = [];
  while (!over) {
    const begun = performance.now();
    await (await fetch(`${addressOf('fieldgate')}/control/faults`)).text();
    took.push(performance.now() - begun);
    await pause(BETWEEN_CALLS_MILLISECONDS);
  }
  return took.sort((a, b) => a - b)[Math.floor(took.length / 2)] ?? Number.NaN;
}

async function measureReleases(): Promise<void> {
  const videos = await heldOn(['Marrow Quay Films'], RELEASES, 'at a time');
  const moments = new Map<string, Date>();
  const first = Math.ceil(Date.now() / 1000) + AHEAD_SECONDS + videos.length / 50;
  for (const [n, id] of videos.entries()) {
    const moment = new Date((Math.round(first) + Math.floor(n / A_SECOND)) * 1000);
    moments.set(id, moment);
    await editVideo(id, { opensAt: momentAt(moment, 'UTC') });
  }
  // One that never comes is counted, and keeps the others from nothing.
  const all = Promise.all(videos.map((id) => untilState(id, 'live', 300).catch(() => undefined)));
  const bareCall = await bareCalls(all);
  await all;
  const opened = await openedAt('fieldgate');
  const late: number[] = [];
  for (const id of videos) {
    const [end = ''] = await linkEnds(id);
    const at = opened.get(end);
    if (at !== undefined && !Number.isNaN(at)) late.push(at - (moments.get(id)?.getTime() ?? 0));
  }
  const figures = {
    releases: videos.length,
    aSecond: A_SECOND,
    ...spread(late),
    neverOpened: videos.length - late.length,
    early: late.filter((each) => each < 0).length,
    withinASecond: late.filter((each) => each < 1000).length,
    bareCallMilliseconds: rounded(bareCall, 1),
  };
  const aims = {
    early: { most: 0 },
    neverOpened: { most: 0 },
    withinASecond: { least: videos.length },
  };
  say({ measure: 'releases by Kettle Drop, milliseconds after their moment', ...figures, aims });
  if (figures.early + figures.neverOpened > 0) process.exitCode = 1;
}

async function measureTogether(): Promise<void> {
  const videos = await heldOn(['Marrow Quay', 'Marrow Quay Films'], TOGETHER, 'together');
  for (const [n, id] of videos.entries()) await editVideo(id, { opensAt: inSeconds(AHEAD_SECONDS + n) });
  const spreads: number[] = [];
  for (const id of videos) {
    await untilSheet(id, ({ channels }) => channels.filter(({ drop }) => drop?.state === 'live').length === 2, 300);
    const opened = new Map([...(await openedAt('lanternfold')), ...(await openedAt('fieldgate'))]);
    const times = (await linkEnds(id)).map((end) => opened.get(end) ?? Number.NaN);
    spreads.push(Math.max(...times) - Math.min(...times));
  }
  say({
    measure: 'videos on two sites together, milliseconds between the first and the last',
    videos: spreads.length,
    ...spread(spreads),
  });
}

await measureOn(machine, folder, async () => {
  for (const site of ['lanternfold', 'fieldgate']) await allowPlentyAt(addressOf(site));
  await measureReleases();
  await measureTogether();
});

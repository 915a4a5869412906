import { fork } from 'node:child_process';
import { once } from 'node:events';
import { createReadStream, mkdtempSync } from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { setTimeout as pause } from 'node:timers/promises';
import { largeFile } from './large-file';
import { machineWith, measureOn } from './machine';
import { watchMemory } from './memory';
import { rounded, SHORT, say } from './say';

const MIB = 1024 * 1024;
const SIZE = Number(process.env.BENCH_MIB ?? (SHORT ? 24 : 2048)) * MIB;
/** Tries of each side, the one after the other; the best of each counts. */
const ROUNDS = Number(process.env.BENCH_ROUNDS ?? (SHORT ? 1 : 3));

/** How often it is looked how many bytes are over. */
const LOOK_MILLISECONDS = 20;

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bench-'));

const seconds = async (work: () => Promise<unknown>) => {
  const start = process.hrtime.bigint();
  await work();
  return Number(process.hrtime.bigint() - start) / 1e9;
};

async function stream(file: string, port: number, target: string, method: string, headers: Record<string, string>) {
  const asked = http.request({
    host: '127.0.0.1',
    port,
    path: target,
    method,
    headers: { 'content-length': SIZE, ...headers },
  });
  const answered = once(asked, 'response') as Promise<[http.IncomingMessage]>;
  await pipeline(createReadStream(file, { highWaterMark: MIB }), asked);
  const [answer] = await answered;
  answer.resume();
  if (answer.statusCode !== 204) throw new Error(`${target} answers ${answer.statusCode}`);
}

const rate = (time: number) => Math.round(SIZE / 1e6 / time);
const best = (times: number[]) => Math.min(...times);

async function bare(file: string): Promise<number> {
  const child = fork('bench/bare-server.mjs', [path.join(folder, 'bare')], { execArgv: [] });
  const [port] = (await once(child, 'message')) as [number];
  const time = await seconds(() => stream(file, port, '/', 'PUT', {}));
  child.kill();
  return time;
}

const file = largeFile(folder, SIZE);
const machine = await machineWith(['stand-ins']);
const webPort = Number(machine.env.KETTLE_PORT);
const address = `http://127.0.0.1:${webPort}`;

async function arrive(web: number | undefined): Promise<{ videoId: string; time: number; grown: number }> {
  const json = { files: [{ fileName: 'large.mp4', size: SIZE }] };
  const post = { method: 'POST', headers: { 'content-type': 'application/json' } };
  const announced = await fetch(`${address}/api/videos`, { ...post, body: JSON.stringify(json) });
  const { files } = (await announced.json()) as { files: { cutId: string; videoId: string }[] };
  const { cutId, videoId } = files[0] ?? { cutId: '', videoId: '' };
  const tus = { 'tus-resumable': '1.0.0' };
  const metadata = `cutId ${Buffer.from(cutId).toString('base64')}`;
  const create = { ...tus, 'upload-length': String(SIZE), 'upload-metadata': metadata };
  await fetch(`${address}/api/arrivals`, { method: 'POST', headers: create });
  const grown = watchMemory(web);
  const headers = { ...tus, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' };
  const time = await seconds(() => stream(file, webPort, `/api/arrivals/${cutId}`, 'PATCH', headers));
  return { videoId, time, grown: grown() };
}

await measureOn(machine, folder, async () => {
  const web = machine.start('web');
  for (;;) {
    if (await fetch(`${address}/api/board`).catch(() => undefined)) break;
    await pause(200);
  }
  const { addressOf, connectedChannels, onlyDrop, untilSheet } = await import('../tests/setup/desk');
  const { editVideo, tickChannel } = await import('@/desk/video/edit-video');
  const { sendVideo } = await import('@/desk/drop/send');

  // Both sides are warm, and have as many tries.
  const into = { bare: [] as number[], ours: [] as Awaited<ReturnType<typeof arrive>>[] };
  await bare(file);
  await arrive(web.pid);
  for (let round = 0; round < ROUNDS; round += 1) {
    into.bare.push(await bare(file));
    into.ours.push(await arrive(web.pid));
  }
  const ours = best(into.ours.map((each) => each.time));
  say({
    measure: 'into Kettle Drop by tus',
    mebibytes: SIZE / MIB,
    megabytesPerSecond: rate(ours),
    bareMegabytesPerSecond: rate(best(into.bare)),
    ratio: rounded(best(into.bare) / ours, 2),
    aims: { ratio: { least: 0.6 } },
  });
  say({
    measure: 'resident memory of web grown',
    mebibytes: rounded(Math.max(...into.ours.map((each) => each.grown)) / MIB),
    aims: { mebibytes: { most: 150 } },
  });

  const worker = machine.start('worker');
  const channelId = (await connectedChannels()).get('Marrow Quay') ?? '';
  for (const { videoId } of into.ours) {
    await editVideo(videoId, { forChildren: false });
    await tickChannel(videoId, channelId, true);
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready', 300);
  }
  const grown = watchMemory(worker.pid);
  const out = { bare: [] as number[], ours: [] as number[] };
  for (const { videoId } of into.ours) {
    out.bare.push(await bare(file));
    const carried = carriedTo(addressOf('lanternfold'));
    await sendVideo(videoId);
    // The site's own processing ends before the next round begins, so that it takes no part in it.
    await untilSheet(videoId, (each) => onlyDrop(each).state === 'live', 300);
    out.ours.push(await carried);
  }
  say({
    measure: 'from the worker to the stand-in, from the first byte there to the last',
    megabytesPerSecond: rate(best(out.ours)),
    bareMegabytesPerSecond: rate(best(out.bare)),
    ratio: rounded(best(out.bare) / best(out.ours), 2),
    aims: { ratio: { least: 0.6 } },
  });
  say({
    measure: 'resident memory of the worker grown',
    mebibytes: rounded(grown() / MIB),
    aims: { mebibytes: { most: 150 } },
  });
});

/** Seconds between the first byte of the next transfer and its last, as the site counts them. */
async function carriedTo(address: string): Promise<number> {
  const passed = async () => {
    const all = (await (await fetch(`${address}/control/passed`)).json()) as Record<string, number>;
    return Object.values(all).reduce((sum, bytes) => sum + bytes, 0);
  };
  const before = await passed();
  let first: number | undefined;
  for (;;) {
    const bytes = (await passed()) - before;
    const now = performance.now();
    if (bytes > 0) first ??= now;
    if (first !== undefined && bytes >= SIZE) return Math.max(LOOK_MILLISECONDS, now - first) / 1000;
    await pause(LOOK_MILLISECONDS);
  }
}

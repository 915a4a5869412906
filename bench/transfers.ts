import { fork } from 'node:child_process';
import { once } from 'node:events';
import { createReadStream, mkdtempSync } from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { setTimeout as pause } from 'node:timers/promises';
import { startMachine } from '../tests/setup/machine';
import { measureOn } from './ending';
import { largeFile } from './large-file';
import { watchMemory } from './memory';

const MIB = 1024 * 1024;
/** A short form, for the tests: a small file, once. */
const SHORT = process.env.BENCH_SHORT === '1';
const SIZE = Number(process.env.BENCH_MIB ?? (SHORT ? 24 : 2048)) * MIB;
const ROUNDS = Number(process.env.BENCH_ROUNDS ?? (SHORT ? 1 : 2));

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

const print = (line: Record<string, unknown>) => process.stdout.write(`${JSON.stringify(line)}\n`);
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
const machine = await startMachine(['stand-ins']);
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
  const { connectedChannels, onlyDrop, untilSheet } = await import('../tests/setup/desk');
  const { editVideo, tickChannel } = await import('@/desk/video/edit-video');
  const { sendVideo } = await import('@/desk/drop/send');

  // Warm both sides up, then take the better of a few rounds of each, one after the other.
  const bareTimes: number[] = [];
  const ours: Awaited<ReturnType<typeof arrive>>[] = [];
  await bare(file);
  for (let round = 0; round < ROUNDS; round += 1) {
    bareTimes.push(await bare(file));
    ours.push(await arrive(web.pid));
  }
  const into = best(ours.map((each) => each.time));
  print({
    measure: 'into Kettle Drop by tus',
    mebibytes: SIZE / MIB,
    megabytesPerSecond: rate(into),
    bareMegabytesPerSecond: rate(best(bareTimes)),
    ratio: Number((best(bareTimes) / into).toFixed(2)),
    aim: 0.6,
  });
  print({
    measure: 'resident memory of web grown',
    mebibytes: Math.round(Math.max(...ours.map((each) => each.grown)) / MIB),
    aim: 150,
  });

  const worker = machine.start('worker');
  const channelId = (await connectedChannels()).get('Marrow Quay') ?? '';
  for (const { videoId } of ours) {
    await editVideo(videoId, { forChildren: false });
    await tickChannel(videoId, channelId, true);
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready', 300);
  }
  const grown = watchMemory(worker.pid);
  const outTimes: number[] = [];
  for (const { videoId } of ours) {
    bareTimes.push(await bare(file));
    await sendVideo(videoId);
    // The site's own processing ends before the next round begins, so that it takes no part in it.
    const sheet = await untilSheet(videoId, (each) => onlyDrop(each).state === 'live', 300);
    const events = sheet.channels.flatMap((channel) => channel.events);
    const at = (kind: string) => Date.parse(events.find((event) => event.kind === kind)?.at ?? '');
    outTimes.push((at('landed') - at('packed')) / 1000);
  }
  const out = best(outTimes);
  print({
    measure: 'from the worker to the stand-in',
    megabytesPerSecond: rate(out),
    bareMegabytesPerSecond: rate(best(bareTimes)),
    ratio: Number((best(bareTimes) / out).toFixed(2)),
    aim: 0.6,
  });
  print({ measure: 'resident memory of the worker grown', mebibytes: Math.round(grown() / MIB), aim: 150 });
});

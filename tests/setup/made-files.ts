import { execFileSync } from 'node:child_process';
import { mkdtempSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { CutFacts, CutMeasures } from '@/core/delivery';
import { readFacts } from '@/media/facts';
import { measureCut } from '@/media/pass/measure-cut';

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-made-'));

/** Has ffmpeg make a file; what comes before its name is given. */
export function made(name: string, ...args: string[]): string {
  const file = path.join(folder, name);
  execFileSync('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args, file]);
  return file;
}

/** Inputs and codecs of a short moving picture with a tone, in parts that tests put together. */
export const pictureOf = (seconds: number) => ['-f', 'lavfi', '-i', `testsrc2=s=320x180:r=25:d=${seconds}`];
export const toneOf = (seconds: number) => ['-f', 'lavfi', '-i', `sine=f=440:r=48000:d=${seconds}`];
export const PICTURE = pictureOf(4);
export const TONE = toneOf(4);
export const H264 = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p'];
export const AAC = ['-c:a', 'aac', '-b:a', '128k'];

/** What is read and measured of a file. */
export async function looked(file: string): Promise<{ facts: CutFacts; measures: CutMeasures }> {
  const facts = await readFacts(file, statSync(file).size);
  return { facts, measures: await measureCut(file, facts) };
}

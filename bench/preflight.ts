import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readFacts } from '@/media/facts';
import { measureCut } from '@/media/pass/measure-cut';
import { fastest } from './fastest';
import { rounded, SHORT, say } from './say';

const SECONDS = SHORT ? 1 : 60;
const SIZE = SHORT ? '320x180' : '1920x1080';
const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bench-'));
const file = path.join(folder, 'cut.mp4');
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args]);
/** As far behind others as the pass itself stands. */
const niceFfmpeg = (...args: string[]) =>
  execFileSync('nice', ['-n', '15', 'ffmpeg', '-v', 'error', '-nostdin', '-y', ...args]);

try {
  // As a delivery is: 1080p with grain, 12 Mbit/s, stereo.
  ffmpeg(
    ...['-f', 'lavfi', '-i', `testsrc2=s=${SIZE}:r=25:d=${SECONDS},noise=alls=8:allf=t`],
    ...['-f', 'lavfi', '-i', `sine=f=440:r=48000:d=${SECONDS}`, '-af', 'pan=stereo|c0=c0|c1=c0'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-b:v', '12M', '-c:a', 'aac', '-b:a', '192k', '-shortest', file],
  );
  const facts = await readFacts(file, statSync(file).size);
  const decode = ['-i', file, '-map', '0:v:0', '-f', 'null', '-', '-map', '0:a:0', '-f', 'null', '-'];
  const bare = await fastest(() => niceFfmpeg(...decode));
  const pass = await fastest(() => measureCut(file, facts));
  say({
    measure: 'one pass over a file, beside only decoding it',
    seconds: SECONDS,
    decodeMilliseconds: rounded(bare),
    passMilliseconds: rounded(pass),
    timesDecode: rounded(pass / bare, 2),
  });
} finally {
  rmSync(folder, { recursive: true });
}

import { spawn } from 'node:child_process';

const RATE = 8000;
const STEP_SECONDS = 0.1;
/** Below this share of full scale nothing is heard. */
const QUIET = 0.0005;

/** How loud a span of a file is, in steps of a tenth of a second, from 0 to 1; no steps where it has no sound there. */
export async function loudnessOver(file: string, from: number, to: number): Promise<number[]> {
  const args = ['-v', 'error', '-nostdin', '-ss', String(from), '-i', file, '-t', String(to - from), '-map', '0:a:0'];
  const bytes: Buffer[] = [];
  await new Promise<void>((resolve) => {
    const child = spawn('ffmpeg', [...args, '-ac', '1', '-ar', String(RATE), '-f', 's16le', '-'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    child.stdout.on('data', (chunk: Buffer) => bytes.push(chunk));
    child.on('error', () => resolve());
    child.on('close', () => resolve());
  });
  const all = Buffer.concat(bytes);
  const step = RATE * STEP_SECONDS * 2;
  return Array.from({ length: Math.floor(all.length / step) }, (_, index) => {
    let squares = 0;
    for (let at = index * step; at < (index + 1) * step; at += 2) squares += (all.readInt16LE(at) / 32_768) ** 2;
    return Math.sqrt(squares / (step / 2));
  });
}

/** Whether two spans sound alike: as loud as each other nearly all the time. */
export function soundsAlike(a: readonly number[], b: readonly number[]): boolean {
  if (a.length === 0 || b.length === 0) return a.length === b.length;
  const steps = Math.min(a.length, b.length);
  const alike = Array.from({ length: steps }, (_, index) => {
    const [one, other] = [a[index] ?? 0, b[index] ?? 0];
    return (one < QUIET && other < QUIET) || (other > one * 0.7 && other < one * 1.4);
  }).filter(Boolean).length;
  return Math.abs(a.length - b.length) <= 1 && alike >= steps * 0.8;
}

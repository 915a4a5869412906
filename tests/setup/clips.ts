import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, renameSync } from 'node:fs';
import path from 'node:path';

interface ClipOptions {
  name: string;
  seconds?: number;
  rate?: string;
  size?: string;
  /** Padding that makes the file larger without making it longer, in bits a second. */
  bitRate?: string;
}

/** A small video with a moving picture and a tone, made once for its name and options, and kept between runs. */
export function makeClip({ name, seconds = 4, rate = '25', size = '320x180', bitRate = '300k' }: ClipOptions): string {
  const options = createHash('sha256').update([seconds, rate, size, bitRate].join(' ')).digest('hex').slice(0, 12);
  const folder = path.resolve('node_modules/.kettle-clips', options);
  mkdirSync(folder, { recursive: true });
  const file = path.join(folder, name);
  if (existsSync(file)) return file;
  const part = `${file}.${process.pid}`;
  const rated = [
    '-b:v',
    bitRate,
    '-minrate',
    bitRate,
    '-maxrate',
    bitRate,
    '-bufsize',
    bitRate,
    '-x264-params',
    'nal-hrd=cbr',
  ];
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `testsrc2=s=${size}:r=${rate}:d=${seconds}`],
    ...['-f', 'lavfi', '-i', `sine=frequency=330:duration=${seconds}`, '-c:v', 'libx264', '-preset', 'ultrafast'],
    ...['-pix_fmt', 'yuv420p', ...rated, '-c:a', 'aac', '-movflags', '+faststart', '-f', 'mp4', part],
  ]);
  // Other processes take it as soon as it is there, so that it has to be whole.
  renameSync(part, file);
  return file;
}

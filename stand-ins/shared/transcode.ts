import { spawn } from 'node:child_process';
import { renameSync } from 'node:fs';

/** SHA-256 of a file, in hexadecimal; by a process of its own, so that transfers that come in meanwhile are not slowed. */
export async function sha256Of(file: string): Promise<string> {
  return (await run('sha256sum', ['--', file], () => {})).slice(0, 64);
}

function run(program: string, args: string[], onLine: (line: string) => void): Promise<string> {
  return new Promise((resolve, reject) => {
    const child = spawn('nice', ['-n', '10', program, ...args], { stdio: ['ignore', 'pipe', 'pipe'] });
    let [out, said] = ['', ''];
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk;
      for (const line of String(chunk).split('\n')) onLine(line);
    });
    child.stderr.on('data', (chunk: Buffer) => {
      said = (said + chunk).slice(-2000);
    });
    child.on('error', reject);
    child.on('close', (code) => (code === 0 ? resolve(out) : reject(new Error(said.trim().split('\n').pop()))));
  });
}

/** What a site sees of a file: its picture in pixels, codecs, bits a sample, container as ffprobe calls it, and seconds. */
export interface FileShape {
  width: number;
  height: number;
  codec: string;
  bits: number;
  /** Its sound, where it has any. */
  sound: string | undefined;
  container: string;
  seconds: number;
}

/** @throws where it is no file that can be read */
export async function shapeOf(file: string): Promise<FileShape> {
  const entries = 'stream=codec_type,codec_name,width,height,pix_fmt:format=format_name,duration';
  const probe = JSON.parse(
    await run('ffprobe', ['-v', 'error', '-show_entries', entries, '-of', 'json', file], () => {}),
  ) as {
    streams: { codec_type: string; codec_name: string; width?: number; height?: number; pix_fmt?: string }[];
    format: { format_name: string; duration: string };
  };
  const first = (type: string) => probe.streams.find(({ codec_type }) => codec_type === type);
  const { codec_name: codec = '', width = 0, height = 0, pix_fmt: layout = '' } = first('video') ?? {};
  return {
    width,
    height,
    codec,
    bits: Number(/p(\d\d)[lb]e$/.exec(layout)?.[1] ?? 8),
    sound: first('audio')?.codec_name,
    container: probe.format.format_name,
    seconds: Number(probe.format.duration),
  };
}

/** Makes an MP4 of at most `height` lines; `onProgress` hears the share that is done. */
export async function transcode(
  from: string,
  to: string,
  height: number,
  seconds: number,
  onProgress: (share: number) => void,
): Promise<void> {
  const scale = `scale=-2:'min(${height},ih)':flags=fast_bilinear`;
  const picture = ['-map', '0:v:0', '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '27', '-pix_fmt', 'yuv420p'];
  const sound = ['-map', '0:a:0?', '-c:a', 'aac', '-b:a', '96k', '-ac', '2'];
  const args = ['-v', 'error', '-nostdin', '-y', '-i', from, '-vf', scale, ...picture, ...sound];
  await run(
    'ffmpeg',
    [...args, '-threads', '2', '-movflags', '+faststart', '-progress', 'pipe:1', '-f', 'mp4', to],
    (line) => {
      const done = /^out_time_us=(\d+)/.exec(line)?.[1];
      if (done) onProgress(Math.min(1, Number(done) / 1e6 / seconds));
    },
  );
}

/** Takes the sound off a span of a file that is there. */
export async function silencedOver(file: string, from: number, to: number): Promise<void> {
  const silent = `${file}.silent.mp4`;
  const filter = `volume=0:enable='between(t,${from},${to})'`;
  const args = ['-v', 'error', '-nostdin', '-y', '-i', file, '-c:v', 'copy', '-af', filter, '-movflags', '+faststart'];
  await run('ffmpeg', [...args, silent], () => {});
  renameSync(silent, file);
}

/** Takes a still out of a video at a share of its length. */
export async function still(from: string, to: string, at: number): Promise<void> {
  await run(
    'ffmpeg',
    ['-v', 'error', '-nostdin', '-y', '-ss', at.toFixed(3), '-i', from, '-frames:v', '1', '-q:v', '4', to],
    () => {},
  );
}

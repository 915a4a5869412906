import { open } from 'node:fs/promises';
import { array, type InferType, number, object, string } from 'yup';
import type { CutFacts } from '@/core/delivery';
import { type Fraction, fraction, fromDecimal } from '@/core/time';
import { missingBytes } from './boxes';
import { FROM_OUTSIDE, ProgramError, runProgram } from './program';

/** A file that cannot be used as a cut; the message says what is wrong and what to do. */
export class UnusableCut extends Error {
  override name = 'UnusableCut';
}

const streamShape = object({
  codec_type: string(),
  codec_name: string(),
  profile: string(),
  width: number(),
  height: number(),
  pix_fmt: string(),
  avg_frame_rate: string(),
  r_frame_rate: string(),
  sample_rate: string(),
  channels: number(),
  bit_rate: string(),
  duration: string(),
  disposition: object({ attached_pic: number() }).default(undefined),
});

const probeShape = object({
  streams: array(streamShape).default([]),
  chapters: array().default([]),
  format: object({
    format_name: string().default(''),
    duration: string(),
    bit_rate: string(),
    tags: object({ major_brand: string() }).default(undefined),
  }).required(),
});

/**
 * What a file is, read with ffprobe.
 * @param path where it stands on this machine
 * @throws UnusableCut where it is empty, no video, or not whole
 */
export async function readFacts(path: string, size: number, signal?: AbortSignal): Promise<CutFacts> {
  if (size === 0) throw new UnusableCut('The file is empty. Export it again, then add it.');
  const probe = await probeOf(path, signal);
  const picture = probe.streams.find(
    (stream) => stream.codec_type === 'video' && stream.disposition?.attached_pic !== 1,
  );
  if (!picture?.width || !picture.height || !picture.codec_name) {
    throw new UnusableCut('There is no video in this file. Add a finished video, such as an MP4.');
  }
  const container = await containerOf(path, probe);
  const lost = container === 'mp4' || container === 'mov' ? await missingBytes(path, size) : 0;
  if (lost > 0) {
    throw new UnusableCut(`The file breaks off: its last ${lost} bytes are missing. Export or copy it again.`);
  }
  const duration = fromDecimal((probe.format.duration ?? picture.duration ?? '').slice(0, 16));
  if (!duration || duration.num <= 0) {
    throw new UnusableCut('The file does not say how long it is; it may have been cut off. Export it again.');
  }
  const sound = probe.streams.find((stream) => stream.codec_type === 'audio');
  const whole = (text: string | undefined) => (text && /^\d+$/.test(text) ? Number(text) : undefined);
  return {
    container,
    duration,
    size,
    bitRate: whole(probe.format.bit_rate),
    video: {
      codec: picture.codec_name,
      profile: picture.profile ?? '',
      width: picture.width,
      height: picture.height,
      rate: rateOf(picture),
      pixelFormat: picture.pix_fmt ?? '',
      bitRate: whole(picture.bit_rate),
    },
    audio: sound?.codec_name
      ? {
          codec: sound.codec_name,
          sampleRate: whole(sound.sample_rate) ?? 0,
          channels: sound.channels ?? 0,
          bitRate: whole(sound.bit_rate),
        }
      : undefined,
    chaptersInside: probe.chapters.length,
  };
}

async function probeOf(path: string, signal: AbortSignal | undefined): Promise<InferType<typeof probeShape>> {
  try {
    const shown = ['-v', 'error', '-show_format', '-show_streams', '-show_chapters', '-of', 'json'];
    return await probeShape.validate(
      JSON.parse(await runProgram('ffprobe', [...shown, ...FROM_OUTSIDE, path], { signal })),
    );
  } catch (error) {
    if (!(error instanceof ProgramError)) throw error;
    if (/moov atom not found/.test(error.said)) {
      throw new UnusableCut('The file breaks off before its index, so it cannot be played. Export or copy it again.');
    }
    throw new UnusableCut('This is not a video file, or it is damaged. Add a finished video, such as an MP4.');
  }
}

function rateOf(picture: InferType<typeof streamShape>): Fraction {
  for (const text of [picture.r_frame_rate, picture.avg_frame_rate]) {
    const [num = 0, den = 0] = (text ?? '').split('/').map(Number);
    // A time base such as 90000/1 stands there for files of varying rate.
    if (num > 0 && den > 0 && num / den <= 480) return fraction(num, den);
  }
  return fraction(25);
}

async function containerOf(path: string, probe: InferType<typeof probeShape>): Promise<string> {
  const names = probe.format.format_name.split(',');
  if (names.includes('mp4')) return probe.format.tags?.major_brand?.trim() === 'qt' ? 'mov' : 'mp4';
  if (!names.includes('matroska')) return names[0] ?? 'unknown';
  const file = await open(path, 'r');
  try {
    // The DocType of the EBML header tells WebM from Matroska (RFC 9559, section 4); it lies in the first bytes.
    const start = Buffer.alloc(256);
    await file.read(start, 0, start.length, 0);
    return start.includes('webm') ? 'webm' : 'mkv';
  } finally {
    await file.close();
  }
}

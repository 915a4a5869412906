import { open } from 'node:fs/promises';
import { array, type InferType, number, object, string } from 'yup';
import type { AudioFacts, CutFacts } from '@/core/delivery';
import { type Fraction, fraction, fromDecimal } from '@/core/time';
import { type Box, missingBytes, topBoxes } from './boxes';
import { pictureFields, pictureFormatOf } from './picture-format';
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
  channel_layout: string(),
  tags: object({ language: string() }).default(undefined),
  ...pictureFields,
  disposition: object({ attached_pic: number() }).default(undefined),
});

const probeShape = object({
  streams: array(streamShape).default([]),
  chapters: array().default([]),
  format: object({
    format_name: string().default(''),
    duration: string(),
    bit_rate: string(),
    tags: object({ major_brand: string(), compatible_brands: string() }).default(undefined),
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
  const boxes = container === 'mp4' || container === 'mov' ? await topBoxes(path) : undefined;
  const lost = boxes ? missingBytes(boxes, size) : 0;
  if (lost > 0) {
    throw new UnusableCut(`The file breaks off: its last ${lost} bytes are missing. Export or copy it again.`);
  }
  const duration = fromDecimal((probe.format.duration ?? picture.duration ?? '').slice(0, 16));
  if (!duration || duration.num <= 0) {
    throw new UnusableCut('The file does not say how long it is; it may have been cut off. Export it again.');
  }
  const subtitles = probe.streams.filter((stream) => stream.codec_type === 'subtitle').length;
  const sounds = probe.streams.filter((stream) => stream.codec_type === 'audio').flatMap(soundOf);
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
      more: pictureFormatOf(picture),
    },
    audio: sounds[0],
    chaptersInside: probe.chapters.length,
    more: { brands: brandsOf(probe), indexFirst: boxes && indexFirst(boxes), sounds, subtitles },
  };
}

const whole = (text: string | undefined) => (text && /^\d+$/.test(text) ? Number(text) : undefined);

function soundOf(stream: InferType<typeof streamShape>): AudioFacts[] {
  if (!stream.codec_name) return [];
  return [
    {
      codec: stream.codec_name,
      sampleRate: whole(stream.sample_rate) ?? 0,
      channels: stream.channels ?? 0,
      bitRate: whole(stream.bit_rate),
      layout: stream.channel_layout ?? '',
      language: stream.tags?.language ?? '',
    },
  ];
}

/** The brands of an MP4 or MOV file: the major one, then those that it is compatible with, four letters each. */
function brandsOf({ format: { tags } }: InferType<typeof probeShape>): string[] {
  const all = [tags?.major_brand ?? '', ...(tags?.compatible_brands?.match(/.{4}/g) ?? [])];
  return [...new Set(all.map((brand) => brand.trim()).filter((brand) => brand !== ''))];
}

/** Whether the index (moov) stands before the pictures (mdat); undefined where one of them is not there. */
function indexFirst(boxes: readonly Box[]): boolean | undefined {
  const [index, pictures] = ['moov', 'mdat'].map((type) => boxes.findIndex((box) => box.type === type));
  return index === undefined || pictures === undefined || index < 0 || pictures < 0 ? undefined : index < pictures;
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

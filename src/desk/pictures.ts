import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { number, object } from 'yup';
import { type Fraction, fraction, frameAtTime, rate, timeOfFrame } from '@/core/time';
import { takeFrame } from '@/media/frames';
import { cutsInUse } from '@/store/cuts';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { makePicture, type Picture, pictureById } from '@/store/pictures';
import { videoById } from '@/store/videos';
import { DeskError, found } from './desk-error';
import { editVideo } from './edit-video';

/** The largest picture that is taken in, in bytes; each site's own limit is said on the Sheet. */
export const LARGEST_PICTURE = 40_000_000;

const TYPES: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

/** Takes a person's own picture as the thumbnail. @throws DeskError where it is none, or larger than LARGEST_PICTURE */
export async function bringPicture(videoId: string, bytes: Readable): Promise<void> {
  await keepPicture(videoId, bytes, 'file');
}

const momentShape = object({ seconds: number().min(0).required() });

/** Takes the frame that stands at a moment of the cut as the thumbnail. */
export async function takeFrameAsPicture(videoId: string, input: unknown): Promise<void> {
  const { seconds } = await momentShape.validate(input);
  const cut = (await cutsInUse(database(), [videoId])).get(videoId);
  if (!cut?.facts) throw new DeskError('not now', 'The cut has to have arrived before a frame can be taken.');
  const { video } = cut.facts;
  const exact = rate(video.rate.num, video.rate.den);
  const frame = frameAtTime(fraction(Math.round(seconds * 1e6), 1_000_000), exact);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-frame-'));
  try {
    const target = path.join(folder, 'frame.jpg');
    await takeFrame(files().localPath(cut.fileKey), target, timeOfFrame(frame, exact), exact, video.width);
    await keepPicture(videoId, createReadStream(target), 'frame', timeOfFrame(frame, exact));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Goes back to the picture that the site makes by itself. */
export async function dropPicture(videoId: string): Promise<void> {
  await editVideo(videoId, { pictureId: null });
}

async function keepPicture(
  videoId: string,
  bytes: Readable,
  source: Picture['source'],
  moment?: Fraction,
): Promise<void> {
  const db = database();
  found(await videoById(db, videoId), 'video');
  const fresh = `pictures/${newId()}`;
  const { size, digest } = await files().put(fresh, bounded(bytes));
  const read = await sharp(files().localPath(fresh))
    .metadata()
    .catch(() => undefined);
  const type = TYPES[read?.format ?? ''];
  if (!read || !type) {
    await files().remove(fresh);
    throw new DeskError('not taken', 'This picture cannot be read. Bring a JPEG, PNG or WebP file.');
  }
  const { width, height } = read;
  const picture = { videoId, fileKey: fresh, type, width, height, size, digest, source, moment };
  await editVideo(videoId, { pictureId: await makePicture(db, picture) });
}

/** A picture's facts with its bytes. */
export async function openPicture(id: string): Promise<{ picture: Picture; bytes: Readable }> {
  const picture = found(await pictureById(database(), id), 'picture');
  return { picture, bytes: files().open(picture.fileKey) };
}

async function* chunksBelow(bytes: Readable, most: number): AsyncGenerator<Buffer> {
  let passed = 0;
  for await (const chunk of bytes) {
    passed += (chunk as Buffer).length;
    if (passed > most)
      throw new DeskError('not taken', `The picture is larger than ${most / 1e6} MB. Bring a smaller one.`);
    yield chunk as Buffer;
  }
}

function bounded(bytes: Readable): Readable {
  return Readable.from(chunksBelow(bytes, LARGEST_PICTURE));
}

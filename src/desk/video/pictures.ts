import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { Readable } from 'node:stream';
import sharp from 'sharp';
import { number, object } from 'yup';
import type { PictureHabit } from '@/core/defaults';
import { compare, type Fraction, fraction, frameAtTime, rate, timeOfFrame } from '@/core/time';
import { makeWide, takeFrame } from '@/media/frames';
import { ProgramError } from '@/media/program';
import { drawTitle } from '@/media/title-layout';
import { database, transaction } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { announce } from '@/store/feed';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { type Cut, cutsInUse } from '@/store/record/cuts';
import { forgetOldHabits, makePicture, type Picture, pictureById } from '@/store/record/pictures';
import { setVideo, videoById } from '@/store/record/videos';
import { allChannels } from '@/store/site/channels';
import { change, type FieldValue } from '../changes/changes';
import { pathOfCut } from '../cut-file';
import { DeskError, found } from '../desk-error';
import { recordOf } from '../drop/record';
import { recordValues } from '../layers/record-values';
import { site } from '../site/session';
import { bounded } from './bounded';
import { editVideo } from './edit-video';

/** The largest picture that is taken in, in bytes; each site's own limit is said on the Sheet. */
export const LARGEST_PICTURE = 40_000_000;

/** A picture of more is no thumbnail, but a way to fill the memory. */
const MOST_PIXELS = 100_000_000;

const TYPES: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

/** Takes a person's own picture as the thumbnail. @throws DeskError where it is none, or larger than LARGEST_PICTURE */
export async function bringPicture(videoId: string, bytes: Readable): Promise<void> {
  const facts = { videoId, source: 'file', moment: undefined, byHabit: false, formOf: undefined } as const;
  await editVideo(videoId, { pictureId: await keepPicture(facts, bytes) });
}

const momentShape = object({ seconds: number().min(0).required() });

/** Takes the frame that stands at a moment of the cut as the thumbnail. */
export async function takeFrameAsPicture(videoId: string, input: unknown): Promise<void> {
  const { seconds } = await momentShape.validate(input);
  const cut = (await cutsInUse(database(), [videoId])).get(videoId);
  if (!cut?.facts) throw new DeskError('not now', 'The file has to have arrived before a frame can be taken.');
  try {
    await withFrame(cut, fraction(Math.round(seconds * 1e6), 1_000_000), async (file, moment) => {
      await editVideo(videoId, { pictureId: await keepForms(file, { videoId, moment, byHabit: false }) });
    });
  } catch (error) {
    if (!(error instanceof ProgramError)) throw error;
    throw new DeskError('not taken', 'There is no picture at that moment of the file. Take one further to the front.');
  }
}

/**
 * Keeps a frame as the 16:9 picture that most sites want, and, of a cut of another shape, in that shape, too. The id of the
 * first is returned.
 * @param finish draws over each of them, into another file
 */
async function keepForms(
  frame: string,
  facts: Pick<Picture, 'videoId' | 'moment' | 'byHabit'>,
  finish: (from: string, to: string) => Promise<string> = async (from) => from,
): Promise<string> {
  const folder = path.dirname(frame);
  const wide = path.join(folder, 'wide.jpg');
  const another = await makeWide(frame, wide);
  const keep = async (file: string, name: string, formOf: string | undefined) => {
    const done = await finish(file, path.join(folder, name));
    return keepPicture({ ...facts, source: 'frame', formOf }, createReadStream(done));
  };
  const id = await keep(wide, 'wide-done.jpg', undefined);
  if (another) await keep(frame, 'own-done.jpg', id);
  return id;
}

/** Takes the frame nearest to a moment into a file that is there while `use` runs; `use` gets its exact time. */
async function withFrame(
  cut: Cut,
  at: Fraction,
  use: (file: string, moment: Fraction) => Promise<void>,
): Promise<void> {
  const { video, duration } = found(cut.facts, 'file that has been read');
  const exact = rate(video.rate.num, video.rate.den);
  // Past the end there is no frame; the last one stands for it.
  const frame = compare(at, duration) < 0 ? frameAtTime(at, exact) : frameAtTime(duration, exact) - 1;
  const moment = timeOfFrame(Math.max(0, frame), exact);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-frame-'));
  try {
    const target = path.join(folder, 'frame.jpg');
    await takeFrame(pathOfCut(cut), target, moment, exact);
    await use(target, moment);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Goes back to the picture that the site makes by itself; a habit of the layers no longer holds for this video. */
export async function dropPicture(videoId: string): Promise<void> {
  await transaction(async (trx) => {
    const { pictureId, own } = found(await videoById(trx, videoId, true), 'video');
    const fields = (id: string | null, picture: PictureHabit | null): FieldValue[] => [
      { field: 'pictureId', value: id },
      { field: 'picture', value: picture },
    ];
    await change(
      trx,
      videoId,
      'several',
      fields(pictureId ?? null, own.picture ?? null),
      fields(null, { way: 'none' }),
    );
    await announce(trx, 'video', videoId);
  });
}

/** What the layers' habit asks for now; undefined where it is not to be made: a person chose one, or it has been sent. */
async function habitNow(videoId: string) {
  const db = database();
  const [record, drops, channels] = await Promise.all([recordOf(db, videoId), dropsOf(db, [videoId]), allChannels(db)]);
  const { video, cut, picture } = record;
  if (!cut?.facts || (picture && !picture.byHabit)) return undefined;
  if (drops.some(({ state }) => state !== 'draft' && state !== 'removed')) return undefined;
  const ticked = drops.flatMap((drop) => {
    const channel = channels.find(({ id }) => id === drop.channelId);
    return channel ? [{ channel, drop, profile: site(channel.site).profile }] : [];
  });
  const habit = recordValues(record.layers, video, ticked).values.picture;
  return { habit, cut, title: video.title, pictureId: video.pictureId };
}

/**
 * Makes the picture that the layers' habit asks for, or takes it away where none is asked for any more. A picture that a
 * person chose stays, and so does that of a video that has been sent.
 */
export async function makeHabitPicture(videoId: string): Promise<void> {
  const db = database();
  const wanted = await habitNow(videoId);
  if (!wanted) return;
  const { habit, cut, title, pictureId } = wanted;
  let fresh: string | undefined;
  if (habit.way !== 'none') {
    await withFrame(cut, habit.at, async (file, moment) => {
      fresh = await keepForms(file, { videoId, moment, byHabit: true }, async (from, to) => {
        if (habit.way !== 'layout') return from;
        await drawTitle(from, to, title, habit.band);
        return to;
      });
    });
  }
  const old = await transaction(async (trx) => {
    // A person who chooses a picture meanwhile waits here, or has chosen already.
    const video = await videoById(trx, videoId, true);
    const now = await habitNow(videoId);
    const same = now && JSON.stringify([now.habit, now.title]) === JSON.stringify([habit, title]);
    // Whoever made one at the same time may have put this one away.
    const isHere = fresh === undefined || (await pictureById(trx, fresh)) !== undefined;
    if (same && isHere && video?.pictureId === pictureId) await setVideo(trx, videoId, { pictureId: fresh });
    // What was made in vain goes as well as what it takes the place of.
    return forgetOldHabits(trx, videoId);
  });
  for (const key of old) await files().remove(key);
  await announce(db, 'video', videoId);
}

async function keepPicture(
  facts: Pick<Picture, 'videoId' | 'source' | 'moment' | 'byHabit' | 'formOf'>,
  bytes: Readable,
): Promise<string> {
  const db = database();
  found(await videoById(db, facts.videoId), 'video');
  const fresh = `pictures/${newId()}`;
  const { size, digest } = await files().put(fresh, bounded(bytes, LARGEST_PICTURE, 'picture'));
  const read = await sharp(files().localPath(fresh))
    .metadata()
    .catch(() => undefined);
  const type = TYPES[read?.format ?? ''];
  if (!read || !type) {
    await files().remove(fresh);
    throw new DeskError('not taken', 'This picture cannot be read. Use a JPEG, PNG or WebP file.');
  }
  const { width, height } = read;
  if (width * height > MOST_PIXELS) {
    await files().remove(fresh);
    const most = `${MOST_PIXELS / 1e6} million pixels`;
    throw new DeskError(
      'not taken',
      `The picture has ${width}×${height} pixels; ${most} are the most. Make it smaller.`,
    );
  }
  return makePicture(db, { ...facts, fileKey: fresh, type, width, height, size, digest });
}

/** A picture's facts with its bytes. */
export async function openPicture(id: string): Promise<{ picture: Picture; bytes: Readable }> {
  const picture = found(await pictureById(database(), id), 'picture');
  return { picture, bytes: files().open(picture.fileKey) };
}

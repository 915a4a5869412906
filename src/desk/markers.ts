import { array, boolean, number, object, string } from 'yup';
import {
  IMPORT_WAYS,
  type ImportWay,
  importEffect,
  MARKER_WRITERS,
  type MarkerFinding,
  readMarkerFile,
  type WrittenFormat,
} from '@/core/markers';
import { canDropFrames, compare, fraction, type Rate, rate, ZERO } from '@/core/time';
import { newestCuts } from '@/store/cuts';
import { database } from '@/store/database';
import { newId } from '@/store/ids';
import { type Marker, markersOf } from '@/store/markers';
import { videoById } from '@/store/videos';
import { DeskError, found } from './desk-error';
import { changeMarkers } from './edit-video';
import { idShape } from './id-shape';

/** What was found in a marker file, and what taking it would do in each way. */
export interface MarkerPreview {
  format: string;
  markers: number;
  findings: MarkerFinding[];
  /** How many markers there are before. */
  there: number;
  effects: Record<ImportWay, { fresh: number; changed: number; gone: number }>;
}

async function rateOf(videoId: string): Promise<Rate> {
  const cut = (await newestCuts(database(), [videoId])).get(videoId);
  const { num, den } = cut?.facts?.video.rate ?? { num: 25, den: 1 };
  return rate(num, den);
}

async function readFor(videoId: string, bytes: Uint8Array) {
  const db = database();
  const video = found(await videoById(db, videoId), 'video');
  const exact = await rateOf(videoId);
  // An EDL says with FCM whether it counts drop-frame; without that line, 29.97 is counted as editors mostly do.
  const file = readMarkerFile(bytes, { rate: { ...exact, dropFrame: canDropFrames(exact) } });
  const there = await markersOf(db, videoId);
  return { video, file, there, effect: (way: ImportWay) => importEffect(there, file.markers, way, exact) };
}

function previewOf({ file, there, effect }: Awaited<ReturnType<typeof readFor>>): MarkerPreview {
  const effects = Object.fromEntries(
    IMPORT_WAYS.map((way) => {
      const { fresh, changed, gone } = effect(way);
      return [way, { fresh: fresh.length, changed: changed.length, gone: gone.length }];
    }),
  ) as MarkerPreview['effects'];
  const { format, findings, markers } = file;
  return { format, markers: markers.length, findings, there: there.length, effects };
}

/** What a marker file would bring, before it is taken. @throws MarkerFileError naming the line that cannot be read */
export async function previewMarkers(videoId: string, bytes: Uint8Array): Promise<MarkerPreview> {
  return previewOf(await readFor(videoId, bytes));
}

const wayShape = string().oneOf(IMPORT_WAYS).default('replace').required();

/**
 * Takes the markers of a file onto a video's time line. Where the video has no choice of colours that occur, and there is
 * only one colour, that one is taken to be for viewers; of several, a person chooses.
 * @throws MarkerFileError naming the line that cannot be read
 */
export async function importMarkers(
  videoId: string,
  bytes: Uint8Array,
  how: unknown = 'replace',
): Promise<MarkerPreview> {
  const way = await wayShape.validate(how);
  const read = await readFor(videoId, bytes);
  const { video, file, effect } = read;
  const { fresh, changed, gone } = effect(way);
  const colours = [...new Set(file.markers.map((marker) => marker.colour))];
  const chosen = video.chapterColours.some((colour) => colours.includes(colour)) || way !== 'replace';
  const put = [...fresh.map((marker) => ({ ...marker, id: newId() })), ...changed.map(({ id, to }) => ({ ...to, id }))];
  await changeMarkers(videoId, { put, remove: gone }, chosen ? undefined : colours.length === 1 ? colours : []);
  return previewOf(read);
}

const editShape = object({
  put: array(
    object({
      id: idShape(),
      time: object({ num: number().integer().min(0).required(), den: number().integer().min(1).required() }),
      name: string().max(1000, 'A marker’s name has at most 1,000 characters.').defined(),
      note: string().max(10_000).defined(),
      colour: string().max(40).defined(),
      hidden: boolean().default(false),
    }).noUnknown(),
  )
    .max(5000)
    .default([]),
  remove: array(idShape().required()).max(5000).default([]),
}).noUnknown();

/** Adds, changes and takes away markers by hand, all as one change. A marker with a known id keeps what is not given. */
export async function editMarkers(videoId: string, input: unknown): Promise<void> {
  const { put, remove } = await editShape.validate(input, { stripUnknown: false });
  const there = new Map((await markersOf(database(), videoId)).map((marker) => [marker.id, marker]));
  const known = (id: string | undefined): Marker | undefined => (id === undefined ? undefined : there.get(id));
  for (const { id } of put)
    if (id !== undefined && !known(id)) throw new DeskError('not found', 'The marker is gone meanwhile.');
  const markers = put.map(({ id, time, ...words }): Marker => {
    const old = known(id);
    const fresh: Pick<Marker, 'length' | 'on'> = { length: ZERO, on: 'timeline' };
    return { ...fresh, ...old, ...words, time: fraction(time.num, time.den), id: id ?? newId() };
  });
  await changeMarkers(videoId, { put: markers, remove: remove.filter((id) => there.has(id)) });
}

/** A video's markers, all or only those that viewers see, as the text of a file. */
export async function exportMarkers(videoId: string, format: string, chaptersOnly: boolean): Promise<string> {
  if (!Object.hasOwn(MARKER_WRITERS, format))
    throw new DeskError('not taken', `Markers cannot be written as “${format}”.`);
  const db = database();
  const video = found(await videoById(db, videoId), 'video');
  const all = await markersOf(db, videoId);
  const seen = ({ colour, hidden }: Marker) => !hidden && video.chapterColours.includes(colour);
  const markers = (chaptersOnly ? all.filter(seen) : all).sort((a, b) => compare(a.time, b.time));
  if (markers.length === 0) throw new DeskError('not now', 'There is nothing to export yet.');
  return MARKER_WRITERS[format as WrittenFormat]({ rate: await rateOf(videoId), startFrame: 0, markers });
}

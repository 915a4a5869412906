import { array, boolean, number, object, string } from 'yup';
import { MARKER_KINDS, type TimeLine, timeLineRate } from '@/core/chapters';
import {
  IMPORT_WAYS,
  type ImportWay,
  importEffect,
  MARKER_WRITERS,
  type MarkerFile,
  MarkerFileError,
  type MarkerFinding,
  type MarkerFormat,
  type ReadMarker,
  marker as readMarker,
  type TableColumns,
  TIMECODED_FORMATS,
  type WrittenFormat,
} from '@/core/markers';
import {
  canDropFrames,
  compare,
  type Fraction,
  fraction,
  frameOfTimecode,
  minus,
  timecodeOfFrame,
  ZERO,
} from '@/core/time';
import { readChaptersInside } from '@/media/chapters';
import { database } from '@/store/database';
import { newId } from '@/store/ids';
import { cutsInUse } from '@/store/record/cuts';
import { type Marker, markersOf } from '@/store/record/markers';
import { videoById } from '@/store/record/videos';
import { pathOfCut } from '../cut-file';
import { DeskError, found } from '../desk-error';
import { recordOf } from '../drop/record';
import { idShape } from '../id-shape';
import { fractionShape } from '../layers/values-shape';
import { changeMarkers } from './edit-video';
import { checkUnchanged, type MadeOn } from './made-on';
import { readMarkers } from './reading/apart';
import { isSameRate, type MarkersRead, onTimeLine } from './reading/markers-in';

/** What was found in a marker file, and what taking it would do in each way. */
export interface MarkerPreview {
  format: MarkerFormat;
  markers: number;
  findings: MarkerFinding[];
  /** How many markers there are before. */
  existing: number;
  effects: Record<ImportWay, { fresh: number; changed: number; gone: number }>;
  /** Whether the file may be taken as captions instead. */
  captions: boolean;
  /** The first rows of a table, and what its columns are taken for; a person may say otherwise. */
  table: { rows: string[][]; columns: TableColumns } | undefined;
  /** Why nothing can be read before columns are chosen. */
  trouble: string | undefined;
}

/** Where markers are read from: the bytes of a file, or the cut in use, which may have chapters inside. */
export const INSIDE_THE_CUT = 'inside the cut';
export type MarkerSource = Uint8Array | typeof INSIDE_THE_CUT;

/** What a person says of a marker file beside its bytes. */
export interface ImportOptions {
  fileName?: string;
  columns?: TableColumns;
}

const column = () => number().integer().min(0).max(1000);
const columnsShape = object({
  time: column(),
  frame: column(),
  seconds: column(),
  end: column(),
  length: column(),
  name: column(),
  note: column(),
  colour: column(),
})
  .noUnknown()
  .default(undefined);

const optionsShape = object({ fileName: string().max(500), columns: columnsShape });

async function readFor(videoId: string, source: MarkerSource, input: unknown) {
  const { fileName = '', columns } = await optionsShape.validate(input, { stripUnknown: false });
  const db = database();
  const video = found(await videoById(db, videoId), 'video');
  const cut = (await cutsInUse(db, [videoId])).get(videoId);
  const exact = cut?.facts?.video.rate ?? { num: 25, den: 1 };
  const { timeLine } = video;
  if (source === INSIDE_THE_CUT) {
    if (!cut?.facts) throw new DeskError('not now', 'The file has to have arrived before its chapters can be read.');
    const file = onTimeLine(await readChaptersInside(pathOfCut(cut)), timeLine, exact);
    const read: MarkersRead = { file, trouble: undefined, table: undefined, captions: false };
    return { video, exact, read, existing: await markersOf(db, videoId) };
  }
  const read = await readMarkers({ bytes: source, fileName, columns, timeLine, exact });
  // What is there is read last: reading the file may have taken a while.
  return { video, exact, read, existing: await markersOf(db, videoId) };
}

function effectOf(existing: readonly Marker[], file: MarkerFile, way: ImportWay, exact: Fraction) {
  const shown = existing.map((marker) => ({ ...marker, hidden: marker.kind === 'note' }));
  return importEffect(shown, file.markers, way, { ...exact, dropFrame: false });
}

/**
 * What a marker file would bring, before it is taken. A table whose columns are not known says so, for a person to choose.
 * @param source the bytes of a file, or the cut itself
 * @param options the file’s name and the columns of a table, unchecked
 * @throws MarkerFileError naming the line that cannot be read
 */
export async function previewMarkers(
  videoId: string,
  source: MarkerSource,
  options: unknown = {},
): Promise<MarkerPreview> {
  const { read, existing, exact } = await readFor(videoId, source, options);
  const { table, captions, trouble } = read;
  const nothing = { format: 'csv' as const, rate: undefined, startFrame: undefined, markers: [], findings: [] };
  const file: MarkerFile = read.file ?? nothing;
  const effects = Object.fromEntries(
    IMPORT_WAYS.map((way) => {
      const { fresh, changed, gone } = effectOf(existing, file, way, exact);
      return [way, { fresh: fresh.length, changed: changed.length, gone: gone.length }];
    }),
  ) as MarkerPreview['effects'];
  const { format, findings, markers } = file;
  return { format, markers: markers.length, findings, existing: existing.length, effects, captions, table, trouble };
}

/** Markers of one video: what one change with its undo can carry. */
const MOST_MARKERS = 20_000;

const wayShape = string().oneOf(IMPORT_WAYS).default('replace').required();

/**
 * Takes the markers of a file onto a video's time line, with what the file says of that. Which of them are for viewers, a
 * person or the series says: a note to the team has a colour, too.
 * @param source the bytes of a file, or the cut itself
 * @param how one of the ways to import, unchecked
 * @param options the file’s name and the columns of a table, unchecked
 * @throws MarkerFileError naming the line that cannot be read
 */
export async function importMarkers(
  videoId: string,
  source: MarkerSource,
  how: unknown = 'replace',
  options: unknown = {},
): Promise<{ markers: number; findings: MarkerFinding[] }> {
  const way = await wayShape.validate(how);
  const { video, read, existing, exact } = await readFor(videoId, source, options);
  const { file } = read;
  if (!file) throw new MarkerFileError(read.trouble ?? 'nothing in it can be read', 0);
  const { fresh, changed, gone } = effectOf(existing, file, way, exact);
  if (existing.length - gone.length + fresh.length > MOST_MARKERS) {
    const most = MOST_MARKERS.toLocaleString('en');
    throw new DeskError(
      'not taken',
      `A video has at most ${most} markers. Take only a colour of them out of the edit.`,
    );
  }
  const kinds = new Map(existing.map((marker) => [marker.id, marker.kind]));
  const put = [
    ...fresh.map(
      ({ hidden, ...marker }): Marker => ({
        ...marker,
        id: newId(),
        kind: hidden ? 'note' : 'by choice',
      }),
    ),
    ...changed.map(({ id, to: { hidden, ...to } }): Marker => {
      return { ...to, id, kind: hidden ? 'note' : (kinds.get(id) ?? 'by choice') };
    }),
  ];
  const hasClock = file.rate !== undefined && file.startFrame !== undefined;
  await changeMarkers(
    videoId,
    { put, remove: gone },
    { timeLine: hasClock ? startingAt(video.timeLine, file, exact) : undefined },
  );
  return { markers: file.markers.length, findings: file.findings };
}

/** The time line as a file says that it starts: at the same timecode, counted at the cut's own rate. */
function startingAt(timeLine: TimeLine, { rate, startFrame = 0 }: MarkerFile, exact: Fraction): TimeLine {
  const dropFrame = (rate?.dropFrame ?? false) && canDropFrames(exact);
  if (!rate || isSameRate(rate, exact)) return { ...timeLine, startFrame, dropFrame };
  const at = timeLineRate(exact, { dropFrame });
  return { ...timeLine, startFrame: frameOfTimecode(timecodeOfFrame(startFrame, rate), at), dropFrame };
}

const editShape = object({
  put: array(
    object({
      id: idShape().required(),
      isNew: boolean().default(false),
      time: fractionShape().required(),
      name: string().max(1000, 'A marker’s name has at most 1,000 characters.').defined(),
      note: string().max(10_000).defined(),
      colour: string().max(40).defined(),
      kind: string().oneOf(MARKER_KINDS).default('by choice'),
      on: object().default(undefined),
    }).noUnknown(),
  )
    .max(MOST_MARKERS)
    .default([]),
  remove: array(idShape().required()).max(MOST_MARKERS).default([]),
}).noUnknown();

/**
 * Adds, changes and takes away markers by hand, all as one change. Which of them are for viewers is another thing to say.
 * @throws DeskError where a marker that is not said to be new is gone
 */
export async function editMarkers(videoId: string, input: unknown): Promise<void> {
  const { put, remove } = await editShape.validate(input, { stripUnknown: false });
  const db = database();
  found(await videoById(db, videoId), 'video');
  const existingById = new Map((await markersOf(db, videoId)).map((marker) => [marker.id, marker]));
  const markers = put.map(({ isNew, on, ...given }): Marker => {
    const old = existingById.get(given.id);
    if (!old && !isNew) throw new DeskError('not found', 'The marker is gone meanwhile.');
    const { time, ...words } = old && on ? overOthers(old, given, on) : given;
    const fresh: Pick<Marker, 'length' | 'on'> = { length: ZERO, on: 'timeline' };
    return { ...fresh, ...old, ...words, time: fraction(time.num, time.den) };
  });
  await changeMarkers(videoId, { put: markers, remove: remove.filter((id) => existingById.has(id)) });
}

type MarkerWords = Pick<Marker, 'id' | 'time' | 'name' | 'note' | 'colour' | 'kind'>;

/** A marker's change laid over what others have changed of it: fields that it leaves as they were are as they are now. */
function overOthers(old: Marker, given: MarkerWords, on: MadeOn): MarkerWords {
  const fields = Object.keys(on).filter((field) => field in given) as (keyof MarkerWords)[];
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const untouched = fields.filter((field) => same(given[field], on[field]));
  for (const field of fields) {
    if (!untouched.includes(field)) checkUnchanged(on, field, old[field], given[field], old.id);
  }
  return { ...given, ...Object.fromEntries(untouched.map((field) => [field, old[field]])) };
}

/**
 * A video's markers, or its chapters alone, as the text of a file.
 * @param format one of the marker formats, unchecked
 * @param chaptersOnly whether notes are left out
 * @throws DeskError where there is nothing to export
 */
export async function exportMarkers(videoId: string, format: string, chaptersOnly: boolean): Promise<string> {
  if (!Object.hasOwn(MARKER_WRITERS, format))
    throw new DeskError('not taken', `Markers cannot be written as “${format}”.`);
  const { video, cut, markers: all, chapters, range } = await recordOf(database(), videoId);
  // All markers go back to the edit where they stood in it; what counts from the start of the file cannot lie before it.
  const onTimeLine = !chaptersOnly && TIMECODED_FORMATS.has(format);
  const end = range.to && minus(range.to, range.from);
  const byId = new Map(all.map((marker) => [marker.id, marker]));
  const wanted: ReadMarker[] = chaptersOnly
    ? chapters.map(({ markerId, time, title }) => {
        const from = byId.get(markerId ?? '');
        return { ...readMarker({ time, name: title }), note: from?.note ?? '', colour: from?.colour ?? '' };
      })
    : all.map(({ kind, id: _, ...marker }) => {
        const time = onTimeLine ? marker.time : minus(marker.time, range.from);
        return { ...marker, time, hidden: kind === 'note' };
      });
  const markers = wanted.filter(({ time }) => time.num >= 0).sort((a, b) => compare(a.time, b.time));
  if (markers.length === 0) {
    const what = chaptersOnly ? 'No marker is a chapter yet; choose the colour first.' : 'There are no markers yet.';
    throw new DeskError('not now', what);
  }
  const startFrame = onTimeLine ? video.timeLine.startFrame : 0;
  const rate = timeLineRate(cut?.facts?.video.rate ?? { num: 25, den: 1 }, video.timeLine);
  return MARKER_WRITERS[format as WrittenFormat]({ rate, startFrame, markers, end: onTimeLine ? undefined : end });
}

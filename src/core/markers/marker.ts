import { type Fraction, fraction, plus, type Rate } from '../time';

/** Where a marker sat in the edit. */
export type MarkerPlace = 'timeline' | 'track' | 'clip';

/** A marker as a file gives it: `time` and `length` are exact seconds, `time` from the first frame of the time line. */
export interface ReadMarker {
  time: Fraction;
  length: Fraction;
  name: string;
  note: string;
  /** In lower case; empty where the format has no colours. */
  colour: string;
  on: MarkerPlace;
  /** Whether the file says that viewers must not see it. */
  hidden: boolean;
}

/** Something a reader has to say: `at` is a line number ("line 7") or a path in the file. */
export interface MarkerFinding {
  at: string;
  what: string;
  done: string;
}

/** Every marker format that is read. */
export const MARKER_FORMATS = [
  'edl',
  'otio',
  'webvtt',
  'ffmetadata',
  'matroska',
  'json',
  'csv',
  'text',
  'subrip',
  'inside the file',
] as const;
export type MarkerFormat = (typeof MARKER_FORMATS)[number];

/** What every reader of a marker format gives. */
export interface MarkerFile {
  format: MarkerFormat;
  rate: Rate | undefined;
  /** Frame count of the time line's first frame, where the format tells it. */
  startFrame: number | undefined;
  markers: ReadMarker[];
  findings: MarkerFinding[];
}

/** What a reader may be told beside the file: the time line's rate, and the timecode that it starts at. */
export interface ReadOptions {
  rate?: Rate;
  start?: string;
}

/** A file that cannot be read as markers; `line` counts from 1, and is 0 where the whole file is meant. */
export class MarkerFileError extends Error {
  override name = 'MarkerFileError';
  constructor(
    message: string,
    readonly line: number,
  ) {
    super(line > 0 ? `Line ${line}: ${message}` : message);
  }
}

/** A marker with what is usual where the format says nothing. */
export function marker(fields: Pick<ReadMarker, 'time' | 'name'> & Partial<ReadMarker>): ReadMarker {
  return { length: { num: 0, den: 1 }, note: '', colour: '', on: 'timeline', hidden: false, ...fields };
}

/**
 * Some exports leave the name empty and put it into the note: the note is then offered as the name, and a finding says so.
 */
export function named(found: ReadMarker, at: string, findings: MarkerFinding[]): ReadMarker {
  if (found.name.trim() !== '' || found.note.trim() === '') return found;
  findings.push({ at, what: 'the name is empty and the note is not', done: 'took the note as the name' });
  return { ...found, name: found.note };
}

/** The end of a marker's span on export: its own, else the next marker's start, else a second later. */
export function spanEnd(markers: readonly ReadMarker[], index: number): Fraction {
  const own = markers[index];
  if (!own) throw new RangeError(`There is no marker ${index}`);
  if (own.length.num > 0) return plus(own.time, own.length);
  return markers[index + 1]?.time ?? plus(own.time, fraction(1));
}

import type { Fraction, Rate } from '../time';

/** Colours that markers are known by; a format's own names are mapped to these, unknown ones kept in lower case. */
export const MARKER_COLOURS = [
  'red',
  'orange',
  'yellow',
  'green',
  'cyan',
  'blue',
  'purple',
  'pink',
  'white',
  'black',
] as const;

/** Where a marker sat in the edit. */
export type MarkerPlace = 'timeline' | 'track' | 'clip';

/** A marker as a file gives it: `time` and `length` are exact seconds, `time` from the first frame of the time line. */
export interface ReadMarker {
  time: Fraction;
  length: Fraction;
  name: string;
  note: string;
  /** Empty where the format has no colours. */
  colour: string;
  on: MarkerPlace;
}

/** Something a reader has to say: `at` is a line number ("line 7") or a path in the file. */
export interface MarkerFinding {
  at: string;
  what: string;
  done: string;
}

/** What every reader of a marker format gives. */
export interface MarkerFile {
  format: 'edl' | 'webvtt';
  rate: Rate | undefined;
  /** Frame count of the time line's first frame, where the format tells it. */
  startFrame: number | undefined;
  markers: ReadMarker[];
  findings: MarkerFinding[];
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

import { compare, type Fraction, fraction, plus, type Rate } from '../time';

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

/** What a writer is given: markers in order of time, and where what they stand in ends, in the same time. */
export interface MarkersToWrite extends Pick<MarkerFile, 'rate' | 'startFrame' | 'markers'> {
  end?: Fraction;
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
    readonly what: string,
    readonly line: number,
  ) {
    super(line > 0 ? `Line ${line}: ${what}` : what);
  }
}

/** A marker with what is usual where the format says nothing. */
export function marker(fields: Pick<ReadMarker, 'time' | 'name'> & Partial<ReadMarker>): ReadMarker {
  return { length: { num: 0, den: 1 }, note: '', colour: '', on: 'timeline', hidden: false, ...fields };
}

/**
 * Some exports leave the name empty and put it into the note: the note is then offered as the name, and a finding says so.
 * @param at where it stands in its file, for what is said
 * @param findings gets one more where the name had to be changed
 */
export function named(found: ReadMarker, at: string, findings: MarkerFinding[]): ReadMarker {
  if (found.name.trim() !== '' || found.note.trim() === '') return found;
  findings.push({ at, what: 'the name is empty and the note is not', done: 'took the note as the name' });
  return { ...found, name: found.note };
}

/**
 * The end of a marker's span on export: its own, else the start of the next that lies later, else the end of what they
 * stand in, else a second later; never beyond that end, and never where the marker begins.
 */
export function spanEnd({ markers, end }: Pick<MarkersToWrite, 'markers' | 'end'>, index: number): Fraction {
  const marker = markers[index];
  if (!marker) throw new RangeError(`There is no marker ${index}`);
  const last = end && compare(end, marker.time) > 0 ? end : undefined;
  const next = markers.slice(index + 1).find(({ time }) => compare(time, marker.time) > 0)?.time;
  const span =
    marker.length.num > 0 ? plus(marker.time, marker.length) : (next ?? last ?? plus(marker.time, fraction(1)));
  return last && compare(span, last) > 0 ? last : span;
}

/** Reads a file entry by entry: one that cannot be read costs itself alone, and is a finding. */
export class EntryReader {
  private readonly lost: { line: number; what: string }[] = [];

  constructor(private readonly file: MarkerFile) {}

  /**
   * @param at what the finding names: a line by its number, or a path
   * @param take reads one entry and puts it into the file
   */
  entry(at: number | string, take: () => void): void {
    try {
      take();
    } catch (error) {
      if (!(error instanceof MarkerFileError) && !(error instanceof RangeError)) throw error;
      const line = typeof at === 'number' ? at : 0;
      const what = error instanceof MarkerFileError ? error.what : 'a time is out of range';
      this.lost.push({ line: error instanceof MarkerFileError && error.line > 0 ? error.line : line, what });
      const named = this.lost.at(-1)?.line || undefined;
      this.file.findings.push({ at: named ? `line ${named}` : String(at), what, done: 'left it out' });
    }
  }

  /** The file, once it is read. @throws MarkerFileError where no entry of it could be read */
  done(): MarkerFile {
    const [first] = this.lost;
    if (first && this.file.markers.length === 0) throw new MarkerFileError(first.what, first.line);
    return this.file;
  }
}

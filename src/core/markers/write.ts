import { writeEdl } from './edl';
import { writeFfmetadata } from './ffmetadata';
import { writeJsonChapters } from './json-chapters';
import type { MarkersToWrite } from './marker';
import { writeMatroska } from './matroska';
import { writeOtio } from './otio';
import { writeTable } from './table';
import { writeText } from './text';
import { writeWebvtt } from './webvtt';

/** What markers can be written as; each takes exact times and gives the whole text of a file. */
export const MARKER_WRITERS = {
  edl: writeEdl,
  otio: writeOtio,
  vtt: writeWebvtt,
  ffmetadata: writeFfmetadata,
  matroska: writeMatroska,
  json: writeJsonChapters,
  csv: writeTable,
  text: writeText,
} satisfies Record<string, (file: MarkersToWrite) => string>;

export type WrittenFormat = keyof typeof MARKER_WRITERS;

/** Formats that say where on the time line a marker is; the others count from the start of the exported file. */
export const TIMECODED_FORMATS: ReadonlySet<string> = new Set<WrittenFormat>(['edl', 'otio', 'csv']);

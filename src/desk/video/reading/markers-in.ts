import { mayBeCaptions } from '@/core/captions';
import { type TimeLine, timeLineRate } from '@/core/chapters';
import {
  decodeText,
  looksLikeTable,
  type MarkerFile,
  MarkerFileError,
  type ReadOptions,
  readMarkerFile,
  type TableColumns,
  tableDropsFrames,
  tableHead,
} from '@/core/markers';
import { type Fraction, plus, rateName, timecodeOfFrame } from '@/core/time';

/** A marker file that is to be read onto a video's time line. */
export interface MarkersAsked {
  bytes: Uint8Array;
  fileName: string;
  /** What the columns of a table are, where a person said so. */
  columns: TableColumns | undefined;
  timeLine: TimeLine;
  /** Exact frames a second of the cut. */
  exact: Fraction;
}

/** What a marker file holds. */
export interface MarkersRead {
  /** Undefined where it is a table whose columns do not tell what can be read. */
  file: MarkerFile | undefined;
  trouble: string | undefined;
  /** The first rows of a table, and what its columns are taken for. */
  table: { rows: string[][]; columns: TableColumns } | undefined;
  /** Whether it may be captions instead. */
  captions: boolean;
}

/** Timecode as it is written where frame numbers are dropped (SMPTE ST 12-1 leaves the sign open; common practice). */
const DROP_FRAME = /\d{2}:\d{2}:\d{2}[;,]\d{2}/;

/** Reads a marker file onto a time line. @throws MarkerFileError naming the line that cannot be read */
export function markersIn({ bytes, fileName, columns, timeLine, exact }: MarkersAsked): MarkersRead {
  const text = decodeText(bytes);
  const isTable = /\.[ct]sv$/i.test(fileName) || columns !== undefined || looksLikeTable(text);
  const head = isTable ? tableHead(text) : undefined;
  const table = head && { rows: head.rows, columns: columns ?? head.columns };
  // An EDL says with FCM whether it counts drop-frame; elsewhere the sign before the frames tells.
  const { startFrame, dropFrame } = timeLine;
  const drops = table ? tableDropsFrames(text, table.columns) : DROP_FRAME.test(text);
  const options: ReadOptions = { rate: timeLineRate(exact, { dropFrame: dropFrame || drops }) };
  if (isTable && startFrame > 0 && options.rate) options.start = timecodeOfFrame(startFrame, options.rate);
  const about = { table, captions: mayBeCaptions(text) };
  try {
    const file = onTimeLine(readMarkerFile(bytes, options, table?.columns, fileName), timeLine, exact);
    return { ...about, file, trouble: undefined };
  } catch (error) {
    if (!table || !(error instanceof MarkerFileError)) throw error;
    return { ...about, file: undefined, trouble: error.message };
  }
}

/** Whether two rates are the same, to the frame. */
export const isSameRate = (a: Fraction, b: Fraction) => a.num === b.num && a.den === b.den;

/**
 * A file's markers on the video's time line. One that does not tell where on it it starts counts from the cut's start.
 * @param file markers counted from the start of the file’s own time line
 * @param exact the frame rate of the cut
 */
export function onTimeLine(file: MarkerFile, { from }: TimeLine, exact: Fraction): MarkerFile {
  const findings = [...file.findings];
  if (file.rate && !isSameRate(file.rate, exact)) {
    const rates = [file.rate, timeLineRate(exact, { dropFrame: false })].map(rateName);
    const what = `the file counts ${rates[0]} frames a second, and the video has ${rates[1]}`;
    findings.push({ at: 'file', what, done: 'kept the exact times' });
  }
  if (file.startFrame !== undefined || from.num === 0) return { ...file, findings };
  return { ...file, findings, markers: file.markers.map((marker) => ({ ...marker, time: plus(marker.time, from) })) };
}

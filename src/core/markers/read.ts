import { isWithinReach } from '../time';
import { readEdl } from './edl';
import { readFfmetadata } from './ffmetadata';
import { readJsonChapters } from './json-chapters';
import { type MarkerFile, MarkerFileError, type MarkerFormat, type ReadOptions } from './marker';
import { readMatroska } from './matroska';
import { readOtio } from './otio';
import { readSubrip } from './subrip';
import { looksLikeTable, readTable } from './table';
import type { TableColumns } from './table-columns';
import { readText } from './text';
import { readWebvtt } from './webvtt';

/** The largest marker file that is read, in bytes: some hundred thousand markers. */
export const LARGEST_MARKER_FILE = 16 * 1024 * 1024;

/**
 * The text of a file: UTF-8, or UTF-16 where a byte-order mark says so, else Latin-1.
 * @throws MarkerFileError where the file is larger than LARGEST_MARKER_FILE
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes.length > LARGEST_MARKER_FILE) {
    throw new MarkerFileError(`the file is larger than ${LARGEST_MARKER_FILE / 1024 / 1024} MiB`, 0);
  }
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('latin1').decode(bytes);
  }
}

function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new MarkerFileError(`the JSON cannot be read: ${(error as Error).message}`, 0);
  }
}

/** The format of a text, by what is in it and not by the file's name. */
function formatOf(text: string, fileName: string): MarkerFormat {
  const start = text.slice(0, 4000).trimStart();
  if (start.startsWith('WEBVTT')) return 'webvtt';
  if (start.startsWith(';FFMETADATA')) return 'ffmetadata';
  if (start.startsWith('<')) return 'matroska';
  if (start.startsWith('{')) return text.includes('OTIO_SCHEMA') ? 'otio' : 'json';
  if (/^\d+\s*\r?\n\d{1,3}:\d{2}:\d{2}[,.]\d{3}\s*-->/.test(start)) return 'subrip';
  if (/^(TITLE\s*:|FCM\s*:|\d{3,6}\s+\S+\s+\S+\s+\S+.*\d{2}:\d{2}:\d{2}[:;])/im.test(start)) return 'edl';
  return /\.[ct]sv$/i.test(fileName) || looksLikeTable(start) ? 'csv' : 'text';
}

/**
 * Reads a marker file of any format that is known here.
 * @param options the rate, for formats that count in frames and do not say their own, and the time line's start
 * @param columns what the columns are, for a table whose heads do not tell
 * @param fileName what the file is called: it tells a table whose heads do not from other text
 * @throws MarkerFileError where it is of no known format, or nothing in it can be read
 */
export function readMarkerFile(
  bytes: Uint8Array,
  options: ReadOptions = {},
  columns?: TableColumns,
  fileName = '',
): MarkerFile {
  const text = decodeText(bytes).replace(/^\ufeff/, '');
  return withinReach(readFormat(text, options, columns, fileName));
}

/** A file without what lies on no time line that there can be: each such entry is a finding. */
function withinReach(file: MarkerFile): MarkerFile {
  const far = file.markers.filter(({ time, length }) => !isWithinReach(time) || !isWithinReach(length));
  if (far.length === 0) return file;
  if (far.length === file.markers.length) throw new MarkerFileError('every time lies beyond 1,000 hours', 0);
  const findings = far.map(({ name }) => {
    return { at: `“${name.slice(0, 60)}”`, what: 'its time lies beyond 1,000 hours', done: 'left it out' };
  });
  const markers = file.markers.filter((marker) => !far.includes(marker));
  return { ...file, markers, findings: [...file.findings, ...findings] };
}

function readFormat(
  text: string,
  options: ReadOptions,
  columns: TableColumns | undefined,
  fileName: string,
): MarkerFile {
  if (text.trim() === '') throw new MarkerFileError('the file is empty', 0);
  if (text.includes('\u0000')) throw new MarkerFileError('this is not a text file', 0);
  if (columns) return readTable(text, options, columns);
  switch (formatOf(text, fileName)) {
    case 'webvtt':
      return readWebvtt(text.trimStart());
    case 'ffmetadata':
      return readFfmetadata(text.trimStart());
    case 'matroska':
      return readMatroska(text);
    case 'otio':
      return readOtio(json(text));
    case 'json':
      return readJsonChapters(json(text));
    case 'subrip':
      return readSubrip(text);
    case 'edl':
      return readEdl(text, options);
    case 'csv':
      return readTable(text, options);
    default:
      return readText(text);
  }
}

import type { Rate } from '../time';
import { readEdl } from './edl';
import { type MarkerFile, MarkerFileError } from './marker';
import { readWebvtt } from './webvtt';

/** The largest marker file that is read, in bytes: some hundred thousand markers. */
export const LARGEST_MARKER_FILE = 16 * 1024 * 1024;

/** File endings that are read, as a file picker takes them. */
export const MARKER_FILE_ENDINGS = ['.edl', '.vtt'] as const;

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

/**
 * Reads a marker file of any format that is known here, told apart by what is in it, not by its name.
 * @param rate the cut's rate, for formats that count in frames and do not say their own
 * @throws MarkerFileError where it is of no known format, or a line cannot be read
 */
export function readMarkerFile(bytes: Uint8Array, rate: Rate): MarkerFile {
  const text = decodeText(bytes);
  if (text.trim() === '') throw new MarkerFileError('the file is empty', 0);
  if (/^\ufeff?WEBVTT/.test(text)) return readWebvtt(text);
  if (text.includes('\u0000')) throw new MarkerFileError('this is not a text file', 0);
  return readEdl(text.replace(/^\ufeff/, ''), rate);
}

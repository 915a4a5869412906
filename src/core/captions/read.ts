import { decodeText, MarkerFileError, readSubrip, readWebvtt } from '../markers';
import { type Fraction, floor, fraction, plus, times } from '../time';
import type { CaptionFile } from './caption';

const milliseconds = (time: Fraction) => floor(times(time, fraction(1000)));

/** Whether the text of a file may be captions. */
export function mayBeCaptions(text: string): boolean {
  const start = text.replace(/^\ufeff/, '').trimStart();
  return start.startsWith('WEBVTT') || /^\d+\s*\r?\n\d{1,3}:\d{2}:\d{2}[,.]\d{3}\s*-->/.test(start);
}

/**
 * Reads SubRip or WebVTT captions.
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readCaptions(bytes: Uint8Array): CaptionFile {
  const text = decodeText(bytes)
    .replace(/^\ufeff/, '')
    .trimStart();
  if (!mayBeCaptions(text)) throw new MarkerFileError('captions are SubRip or WebVTT', 0);
  const webvtt = text.startsWith('WEBVTT');
  const { markers } = webvtt ? readWebvtt(text) : readSubrip(text);
  const captions = markers.map(({ time, length, name, note }) => ({
    from: milliseconds(time),
    to: milliseconds(plus(time, length)),
    lines: (note || name).split('\n').filter(Boolean),
  }));
  return { format: webvtt ? 'webvtt' : 'subrip', captions };
}

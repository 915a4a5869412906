import { decodeHTML } from 'entities';
import { ceil, type Fraction, fraction, minus, times } from '../time';
import { EntryReader, type MarkerFile, MarkerFileError, type MarkersToWrite, marker, spanEnd } from './marker';

// WebVTT, W3C Candidate Recommendation, section 4.2: hours are optional, of two digits or more; three digits of a second.
const STAMP = /^(?:(\d{2,}):)?([0-5]\d):([0-5]\d)\.(\d{3})$/;

/** A WebVTT timestamp as exact seconds, or undefined where it is none. */
export function webvttTime(text: string): Fraction | undefined {
  const match = STAMP.exec(text);
  if (!match) return undefined;
  const [hours, minutes, seconds, thousandths] = [match[1] ?? '0', match[2], match[3], match[4]].map(Number) as [
    number,
    number,
    number,
    number,
  ];
  return fraction(((hours * 60 + minutes) * 60 + seconds) * 1000 + thousandths, 1000);
}

/** Lines of a cue without its tags, its character references resolved as HTML's are (section 6.4). */
function plainLines(cue: string): string[] {
  return cue
    .replace(/<[^<>]*>/g, '')
    .split('\n')
    .map((line) => decodeHTML(line).replace(/\s+/g, ' ').trim());
}

/**
 * Reads a WebVTT file: each cue is a marker whose name is the cue's text; one of several lines has them in its note, too.
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readWebvtt(text: string): MarkerFile {
  const rows = text.replace(/^\ufeff/, '').split(/\r\n|\r|\n/);
  if (!/^WEBVTT(?:[ \t]|$)/.test(rows[0] ?? '')) {
    throw new MarkerFileError('a WebVTT file starts with the word WEBVTT', 1);
  }
  const file: MarkerFile = { format: 'webvtt', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  const entries = new EntryReader(file);
  let at = 1;
  while (at < rows.length && rows[at]?.trim() !== '') at += 1;
  while (at < rows.length) {
    while (at < rows.length && rows[at]?.trim() === '') at += 1;
    if (at >= rows.length) break;
    const block: string[] = [];
    const first = at;
    while (at < rows.length && rows[at]?.trim() !== '') {
      block.push(rows[at] ?? '');
      at += 1;
    }
    if (/^(NOTE|STYLE|REGION)(?:[ \t]|$)/.test(block[0] ?? '')) continue;
    entries.entry(first + 1, () => readCue(block, first, file));
  }
  return entries.done();
}

function readCue(block: readonly string[], first: number, file: MarkerFile): void {
  const timing = block.findIndex((line) => line.includes('-->'));
  if (timing < 0) throw new MarkerFileError('a cue needs a timing line with -->', first + 1);
  const [from = '', rest = ''] = (block[timing] ?? '').split('-->').map((part) => part.trim());
  const [start, end] = [webvttTime(from), webvttTime(rest.split(/[ \t]/)[0] ?? '')];
  if (!start || !end) {
    throw new MarkerFileError('a cue’s times should look like 00:01:02.345 --> 00:02:03.456', first + timing + 1);
  }
  const length = minus(end, start);
  if (length.num < 0) throw new MarkerFileError('a cue ends before it starts', first + timing + 1);
  const lines = plainLines(block.slice(timing + 1).join('\n'));
  const name = lines.join(' ').trim();
  if (name === '') {
    file.findings.push({
      at: `line ${first + timing + 1}`,
      what: 'a cue without text',
      done: 'kept it without a name',
    });
  }
  file.markers.push(marker({ time: start, length, name, note: lines.length > 1 ? lines.join('\n') : '' }));
}

/**
 * A time as a WebVTT timestamp with hours: the first thousandth of a second that does not lie before it. Cut down, it would
 * lie in the frame before the one that is meant.
 */
export function webvttStamp(time: Fraction): string {
  const all = ceil(times(time, fraction(1000)));
  const two = (value: number) => String(value).padStart(2, '0');
  const [hours, minutes, seconds] = [
    Math.floor(all / 3_600_000),
    Math.floor(all / 60_000) % 60,
    Math.floor(all / 1000) % 60,
  ];
  return `${two(hours)}:${two(minutes)}:${two(seconds)}.${String(all % 1000).padStart(3, '0')}`;
}

/** One line of text that stands in a cue as it is meant (section 4.2.2). */
export function webvttEscaped(name: string): string {
  return name.replace(/\s+/g, ' ').trim().replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}

/** Writes markers as a WebVTT chapter file, one cue each. */
export function writeWebvtt(file: Pick<MarkersToWrite, 'markers' | 'end'>): string {
  const cues = file.markers.map(({ time, name }, index) => {
    return `${webvttStamp(time)} --> ${webvttStamp(spanEnd(file, index))}\n${webvttEscaped(name)}\n`;
  });
  return ['WEBVTT\n', ...cues].join('\n');
}

import { ceil, type Fraction, fraction, minus, over, times } from '../time';
import {
  EntryReader,
  type MarkerFile,
  MarkerFileError,
  type MarkersToWrite,
  marker,
  type ReadMarker,
  spanEnd,
} from './marker';

const HEADER = ';FFMETADATA1';
const NANOSECOND: Fraction = { num: 1, den: 1_000_000_000 };

/** Joins lines that end in an escaping backslash; each line keeps the number of its first. */
function logicalLines(text: string): { line: string; at: number }[] {
  const lines: { line: string; at: number }[] = [];
  let open: { line: string; at: number } | undefined;
  text.split(/\r\n|\r|\n/).forEach((raw, index) => {
    const whole = open ? { line: `${open.line}\n${raw}`, at: open.at } : { line: raw, at: index + 1 };
    const slashes = /\\*$/.exec(raw)?.[0].length ?? 0;
    if (slashes % 2 === 1) open = whole;
    else {
      lines.push(whole);
      open = undefined;
    }
  });
  if (open) lines.push(open);
  return lines;
}

const unescaped = (value: string) => value.replace(/\\([\s\S])/g, '$1');
const escaped = (value: string) => value.replace(/[=;#\\\n]/g, (sign) => `\\${sign}`);

/**
 * Reads the chapters of an FFMETADATA file: sections `[CHAPTER]` with TIMEBASE (a nanosecond where it is not given),
 * START, END and title; `=`, `;`, `#`, `\` and line ends stand behind a backslash (ffmpeg-formats, "Metadata").
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readFfmetadata(text: string): MarkerFile {
  const file: MarkerFile = { format: 'ffmetadata', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  const entries = new EntryReader(file);
  const lines = logicalLines(text);
  if (!lines[0]?.line.startsWith(';FFMETADATA')) throw new MarkerFileError(`the file starts with ${HEADER}`, 1);
  let chapter: { values: Map<string, { value: string; at: number }>; at: number } | undefined;
  const end = () => {
    const whole = chapter;
    if (whole) entries.entry(whole.at, () => file.markers.push(chapterMarker(whole.values, whole.at)));
    chapter = undefined;
  };
  for (const { line, at } of lines.slice(1)) {
    if (line.trim() === '' || /^[;#]/.test(line)) continue;
    const section = /^\[(\w+)\]\s*$/.exec(line);
    if (section) {
      end();
      if (section[1] === 'CHAPTER') chapter = { values: new Map(), at };
      continue;
    }
    const split = /^((?:\\[\s\S]|[^=\\])*)=([\s\S]*)$/.exec(line);
    if (!split) {
      file.findings.push({ at: `line ${at}`, what: 'a line should be a name, = and a value', done: 'left it out' });
      continue;
    }
    chapter?.values.set(unescaped(split[1] ?? '').toLowerCase(), { value: unescaped(split[2] ?? ''), at });
  }
  end();
  return entries.done();
}

function chapterMarker(values: Map<string, { value: string; at: number }>, at: number): ReadMarker {
  const whole = (name: string): number => {
    const found = values.get(name);
    const number = Number(found?.value);
    if (!found || !/^-?\d+$/.test(found.value.trim()) || !Number.isSafeInteger(number)) {
      throw new MarkerFileError(`${name.toUpperCase()} should be a whole number`, found?.at ?? at);
    }
    return number;
  };
  const timebase = values.get('timebase');
  const base = timebase ? /^(\d+)\/(\d+)$/.exec(timebase.value.trim()) : undefined;
  if (timebase && (!base || Number(base[1]) === 0 || Number(base[2]) === 0)) {
    throw new MarkerFileError('TIMEBASE should look like 1/1000', timebase.at);
  }
  try {
    const unit = base ? fraction(Number(base[1]), Number(base[2])) : NANOSECOND;
    const time = times(fraction(whole('start')), unit);
    const length = values.has('end') ? minus(times(fraction(whole('end')), unit), time) : fraction(0);
    if (length.num < 0) throw new MarkerFileError('a chapter ends before it starts', at);
    return marker({ time, length, name: values.get('title')?.value ?? '' });
  } catch (error) {
    if (error instanceof RangeError) throw new MarkerFileError('a time is out of range', at);
    throw error;
  }
}

/** Writes markers as FFMETADATA chapters, in frames where the rate is known, else in nanoseconds. */
export function writeFfmetadata(file: Pick<MarkersToWrite, 'rate' | 'markers' | 'end'>): string {
  const unit = file.rate ? fraction(file.rate.den, file.rate.num) : NANOSECOND;
  const ticks = (time: Fraction) => ceil(over(time, unit));
  const chapters = file.markers.map(({ time, name }, index) =>
    [
      '[CHAPTER]',
      `TIMEBASE=${unit.num}/${unit.den}`,
      `START=${ticks(time)}`,
      `END=${ticks(spanEnd(file, index))}`,
      `title=${escaped(name)}`,
      '',
    ].join('\n'),
  );
  return [HEADER, ...chapters].join('\n');
}

import Papa from 'papaparse';
import {
  type Fraction,
  fraction,
  frameAtTime,
  frameOfTimecode,
  fromDecimal,
  minus,
  type Rate,
  timecodeOfFrame,
  timeOfFrame,
  toDecimal,
} from '../time';
import { type MarkerFile, MarkerFileError, marker, named, type ReadOptions } from './marker';
import { plainTime } from './text';

/** What a column of a table can be. */
export type TableColumn = 'time' | 'frame' | 'seconds' | 'end' | 'length' | 'name' | 'note' | 'colour';

const KNOWN: Record<TableColumn, RegExp> = {
  frame: /^(frame|frames|start frame|frame number)$/,
  seconds: /^(seconds|secs|start seconds|time \(s\)|time in seconds)$/,
  time: /^(time|timecode|tc|start|in|position|start time|timecode in|record in|marker time)$/,
  end: /^(end|out|end time|timecode out|record out)$/,
  length: /^(length|duration)$/,
  name: /^(name|title|marker|label|marker name|chapter)$/,
  note: /^(note|notes|comment|comments|description|text)$/,
  colour: /^(colour|color|marker colour|marker color)$/,
};

function columnsOf(header: readonly string[]): Map<TableColumn, number> {
  const found = new Map<TableColumn, number>();
  header.forEach((cell, index) => {
    const word = cell.trim().toLowerCase().replace(/[_-]+/g, ' ');
    for (const [column, pattern] of Object.entries(KNOWN) as [TableColumn, RegExp][]) {
      if (pattern.test(word) && !found.has(column)) found.set(column, index);
    }
  });
  return found;
}

/**
 * Reads a table with commas, semicolons or tabs between its columns (RFC 4180), the columns told by their heads.
 * @param columns which column is what, counted from 0, where the heads do not tell; the first row is then data
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readTable(
  text: string,
  options: ReadOptions = {},
  columns?: Partial<Record<TableColumn, number>>,
): MarkerFile {
  const file: MarkerFile = { format: 'csv', rate: options.rate, startFrame: undefined, markers: [], findings: [] };
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const bad = errors.find((error) => error.type === 'Quotes');
  if (bad) throw new MarkerFileError(`a quotation mark is not closed (${bad.message})`, (bad.row ?? 0) + 1);
  const places = columns ? new Map(Object.entries(columns) as [TableColumn, number][]) : columnsOf(data[0] ?? []);
  if (!places.has('time') && !places.has('frame') && !places.has('seconds')) {
    throw new MarkerFileError('no column is headed time, timecode, seconds or frame', 1);
  }
  const start = options.start && options.rate ? frameOfTimecode(options.start, options.rate) : undefined;
  file.startFrame = start;
  data.slice(columns ? 0 : 1).forEach((row, index) => {
    const line = index + (columns ? 1 : 2);
    const cell = (column: TableColumn) => (row[places.get(column) ?? -1] ?? '').trim();
    const time = timeIn(cell, options.rate, start, line);
    const end = cell('end') === '' ? undefined : cellTime(cell('end'), options.rate, start, line);
    const length =
      cell('length') === ''
        ? end
          ? minus(end, time)
          : fraction(0)
        : cellTime(cell('length'), options.rate, undefined, line);
    const fields = { time, length: length.num > 0 ? length : fraction(0), name: cell('name'), note: cell('note') };
    file.markers.push(
      named(marker({ ...fields, colour: cell('colour').toLowerCase() }), `line ${line}`, file.findings),
    );
  });
  return file;
}

function timeIn(
  cell: (column: TableColumn) => string,
  rate: Rate | undefined,
  start: number | undefined,
  line: number,
): Fraction {
  if (cell('seconds') !== '') {
    const seconds = fromDecimal(cell('seconds'));
    if (!seconds || seconds.num < 0) throw new MarkerFileError(`“${cell('seconds')}” is no number of seconds`, line);
    return seconds;
  }
  if (cell('frame') !== '') {
    if (!/^\d{1,12}$/.test(cell('frame'))) throw new MarkerFileError(`“${cell('frame')}” is no frame number`, line);
    if (!rate) throw new MarkerFileError('frames can only be read when the rate is given', line);
    return timeOfFrame(Number(cell('frame')), rate);
  }
  return cellTime(cell('time'), rate, start, line);
}

function cellTime(text: string, rate: Rate | undefined, start: number | undefined, line: number): Fraction {
  if (/^\d{1,3}:\d{2}:\d{2}[:;]\d{2,3}$/.test(text)) {
    if (!rate) throw new MarkerFileError('timecode can only be read when the rate is given', line);
    try {
      const frame = frameOfTimecode(text, rate) - (start ?? 0);
      if (frame < 0) throw new MarkerFileError(`“${text}” lies before the start of the time line`, line);
      return timeOfFrame(frame, rate);
    } catch (error) {
      throw error instanceof MarkerFileError ? error : new MarkerFileError((error as Error).message, line);
    }
  }
  const time = fromDecimal(text) ?? plainTime(text);
  if (!time || time.num < 0) throw new MarkerFileError(`“${text}” is no time`, line);
  return time;
}

/** Writes markers as a table with commas (RFC 4180): timecode and frame where the rate is known, and exact seconds. */
export function writeTable(file: Pick<MarkerFile, 'rate' | 'startFrame' | 'markers'>): string {
  const { rate } = file;
  const rows = file.markers.map(({ time, length, name, note, colour }) => ({
    ...(rate
      ? {
          timecode: timecodeOfFrame((file.startFrame ?? 0) + frameAtTime(time, rate), rate),
          frame: frameAtTime(time, rate),
        }
      : {}),
    seconds: toDecimal(time, 9),
    length: toDecimal(length, 9),
    name,
    note,
    colour,
  }));
  const fields = [...(rate ? ['timecode', 'frame'] : []), 'seconds', 'length', 'name', 'note', 'colour'];
  return `${Papa.unparse({ fields, data: rows })}\r\n`;
}

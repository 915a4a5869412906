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
import { hourBefore } from './start';
import { plainTime } from './text';

/** What a column of a table can be. */
export const TABLE_COLUMNS = ['time', 'frame', 'seconds', 'end', 'length', 'name', 'note', 'colour'] as const;
export type TableColumn = (typeof TABLE_COLUMNS)[number];

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

/** Which column is what, counted from 0. */
export type TableColumns = Partial<Record<TableColumn, number>>;

/** The first rows of a table, and what its columns are taken for by their heads. */
export function tableHead(text: string): { rows: string[][]; columns: TableColumns } {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy', preview: 4 });
  return { rows: data, columns: Object.fromEntries(columnsOf(data[0] ?? [])) };
}

/**
 * Reads a table with commas, semicolons or tabs between its columns (RFC 4180), the columns told by their heads.
 * @param columns which column is what, where the heads do not tell; the first row is data if there is a digit in its time
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readTable(text: string, options: ReadOptions = {}, columns?: TableColumns): MarkerFile {
  const file: MarkerFile = { format: 'csv', rate: options.rate, startFrame: undefined, markers: [], findings: [] };
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const bad = errors.find((error) => error.type === 'Quotes');
  if (bad) throw new MarkerFileError(`a quotation mark is not closed (${bad.message})`, (bad.row ?? 0) + 1);
  const places = columns ? new Map(Object.entries(columns) as [TableColumn, number][]) : columnsOf(data[0] ?? []);
  if (!places.has('time') && !places.has('frame') && !places.has('seconds')) {
    throw new MarkerFileError('no column is headed time, timecode, seconds or frame', 1);
  }
  const timeAt = places.get('time') ?? places.get('frame') ?? places.get('seconds') ?? 0;
  const headless = columns !== undefined && /\d/.test(data[0]?.[timeAt] ?? '');
  const rows = data.slice(headless ? 0 : 1);
  const start = startOf(rows, timeAt, options, file);
  file.startFrame = start;
  rows.forEach((row, index) => {
    const line = index + (headless ? 1 : 2);
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
    if (time.num < 0) {
      const what = `“${fields.name || fields.note}” lies before the start of the time line`;
      file.findings.push({ at: `line ${line}`, what, done: 'kept it there, where it becomes no chapter' });
    }
    file.markers.push(
      named(marker({ ...fields, colour: cell('colour').toLowerCase() }), `line ${line}`, file.findings),
    );
  });
  return file;
}

const TIMECODE = /^\d{1,3}:\d{2}:\d{2}[:;]\d{2,3}$/;

/** Where the table has timecode, the frame that the time line starts at: as told, or the full hour before its first. */
function startOf(
  rows: readonly string[][],
  timeAt: number,
  { rate, start }: ReadOptions,
  file: MarkerFile,
): number | undefined {
  if (!rate) return undefined;
  let earliest = Number.MAX_SAFE_INTEGER;
  for (const row of rows) {
    const text = row[timeAt]?.trim() ?? '';
    if (TIMECODE.test(text)) earliest = Math.min(earliest, frameIn(text, rate) ?? earliest);
  }
  if (earliest === Number.MAX_SAFE_INTEGER) return undefined;
  if (start !== undefined) return frameOfTimecode(start, rate);
  const guessed = hourBefore(earliest, rate);
  if (guessed > 0) {
    const done = `took ${timecodeOfFrame(guessed, rate)}`;
    file.findings.push({ at: 'file', what: 'the table does not say where the time line starts', done });
  }
  return guessed;
}

function frameIn(text: string, rate: Rate): number | undefined {
  try {
    return frameOfTimecode(text, rate);
  } catch {
    return undefined;
  }
}

function timeIn(
  cell: (column: TableColumn) => string,
  rate: Rate | undefined,
  start: number | undefined,
  line: number,
): Fraction {
  if (cell('seconds') !== '') {
    const seconds = fromDecimal(cell('seconds'));
    if (!seconds) throw new MarkerFileError(`“${cell('seconds')}” is no number of seconds`, line);
    return seconds;
  }
  if (cell('frame') !== '') {
    if (!/^-?\d{1,12}$/.test(cell('frame'))) throw new MarkerFileError(`“${cell('frame')}” is no frame number`, line);
    if (!rate) throw new MarkerFileError('frames can only be read when the rate is given', line);
    return timeOfFrame(Number(cell('frame')), rate);
  }
  return cellTime(cell('time'), rate, start, line);
}

function cellTime(text: string, rate: Rate | undefined, start: number | undefined, line: number): Fraction {
  if (TIMECODE.test(text)) {
    if (!rate) throw new MarkerFileError('timecode can only be read when the rate is given', line);
    try {
      return timeOfFrame(frameOfTimecode(text, rate) - (start ?? 0), rate);
    } catch (error) {
      throw new MarkerFileError((error as Error).message, line);
    }
  }
  const time = fromDecimal(text) ?? plainTime(text);
  if (!time) throw new MarkerFileError(`“${text}” is no time`, line);
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

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
  toDecimalUp,
} from '../time';
import {
  EntryReader,
  type MarkerFile,
  MarkerFileError,
  type MarkersToWrite,
  marker,
  named,
  type ReadOptions,
} from './marker';
import { hourBefore } from './start';
import type { TableColumn, TableColumns } from './table-columns';
import { plainTime } from './text';

const KNOWN: Record<TableColumn, RegExp> = {
  frame: /^(frame|frames|start frame|frame number)$/,
  seconds: /^(seconds|secs|start seconds|time \(s\)|time in seconds)$/,
  time: /^(time|timecode|tc|start|in|position|when|at|start time|timecode in|record in|marker time)$/,
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

/** The sign between the columns: the one by which the first line has a time among its heads, or else as the rows look. */
function delimiterOf(body: string): string {
  const head = /^\s*(.*)/.exec(body)?.[1] ?? '';
  const byHead = [',', ';', '\t', '|'].find((delimiter) => {
    const [cells = []] = Papa.parse<string[]>(head, { delimiter }).data;
    const places = columnsOf(cells);
    return cells.length > 1 && (places.has('time') || places.has('frame') || places.has('seconds'));
  });
  return byHead ?? '';
}

/** The first rows of a table, and what its columns are taken for by their heads. */
export function tableHead(text: string): { rows: string[][]; columns: TableColumns } {
  const body = text.replace(/^\ufeff/, '');
  const { data } = Papa.parse<string[]>(body, {
    delimiter: delimiterOf(body),
    skipEmptyLines: 'greedy',
    preview: 4,
  });
  return { rows: data, columns: Object.fromEntries(columnsOf(data[0] ?? [])) };
}

/** Whether a text is a table by its first line: at least two columns, one of which is headed as a time. */
export function looksLikeTable(text: string): boolean {
  const { rows, columns } = tableHead(text.slice(0, 4000));
  const timed = columns.time ?? columns.frame ?? columns.seconds;
  return (rows[0]?.length ?? 0) > 1 && timed !== undefined;
}

/** Timecode as it is written where frame numbers are dropped (SMPTE ST 12-1 leaves the sign open; common practice). */
const DROP_FRAME_CELL = /^\d{1,3}:\d{2}:\d{2}[;,]\d{2}$/;

/** Whether a table counts drop-frame: by the sign in its timecode, not by those between its columns. */
export function tableDropsFrames(text: string, columns: TableColumns): boolean {
  const places = [columns.time, columns.end].filter((place) => place !== undefined);
  const { rows } = parsedRows(text);
  return rows.some(({ cells }) => places.some((place) => DROP_FRAME_CELL.test(cells[place]?.trim() ?? '')));
}

/** A row with the number of the line that it starts on. */
interface TableRow {
  cells: string[];
  line: number;
}

/** The rows of a table (RFC 4180). A quotation mark that is not closed costs its own line alone. */
function parsedRows(text: string): { rows: TableRow[]; lost: { line: number; what: string }[] } {
  const body = text.replace(/^\ufeff/, '');
  const whole = Papa.parse<string[]>(body, { delimiter: delimiterOf(body) });
  const bad = (errors: typeof whole.errors) => errors.find(({ type }) => type === 'Quotes');
  const isEmpty = (cells: string[]) => cells.every((cell) => cell.trim() === '');
  if (!bad(whole.errors)) {
    let line = 1;
    const rows = whole.data.map((cells) => {
      const row = { cells, line };
      line += 1 + cells.reduce((ends, cell) => ends + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0);
      return row;
    });
    return { rows: rows.filter(({ cells }) => !isEmpty(cells)), lost: [] };
  }
  const { delimiter } = whole.meta;
  const found: ReturnType<typeof parsedRows> = { rows: [], lost: [] };
  body.split(/\r\n|\r|\n/).forEach((each, index) => {
    const { data, errors } = Papa.parse<string[]>(each, { delimiter });
    const [cells = []] = data;
    if (bad(errors)) found.lost.push({ line: index + 1, what: 'a quotation mark is not closed' });
    else if (!isEmpty(cells)) found.rows.push({ cells, line: index + 1 });
  });
  return found;
}

/**
 * Reads a table with commas, semicolons or tabs between its columns (RFC 4180), the columns told by their heads.
 * @param columns which column is what, where the heads do not tell; the first row is data if there is a digit in its time
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readTable(text: string, options: ReadOptions = {}, columns?: TableColumns): MarkerFile {
  const file: MarkerFile = { format: 'csv', rate: options.rate, startFrame: undefined, markers: [], findings: [] };
  const entries = new EntryReader(file);
  const { rows: all, lost } = parsedRows(text);
  const places = columns ? new Map(Object.entries(columns) as [TableColumn, number][]) : columnsOf(all[0]?.cells ?? []);
  if (!places.has('time') && !places.has('frame') && !places.has('seconds')) {
    throw new MarkerFileError('no column is headed time, timecode, seconds or frame', 1);
  }
  const timeAt = places.get('time') ?? places.get('frame') ?? places.get('seconds') ?? 0;
  const headless = columns !== undefined && /\d/.test(all[0]?.cells[timeAt] ?? '');
  const rows = all.slice(headless ? 0 : 1);
  const start = startOf(rows, timeAt, options, file);
  file.startFrame = start;
  for (const { line, what } of lost) {
    entries.entry(line, () => {
      throw new MarkerFileError(what, line);
    });
  }
  for (const { cells, line } of rows) {
    const cell = (column: TableColumn) => (cells[places.get(column) ?? -1] ?? '').trim();
    entries.entry(line, () => readRow(cell, options.rate, start, line, file));
  }
  return entries.done();
}

function readRow(
  cell: (column: TableColumn) => string,
  rate: Rate | undefined,
  start: number | undefined,
  line: number,
  file: MarkerFile,
): void {
  const time = timeIn(cell, rate, start, line);
  const end = cell('end') === '' ? undefined : cellTime(cell('end'), rate, start, line);
  const length =
    cell('length') === '' ? (end ? minus(end, time) : fraction(0)) : cellTime(cell('length'), rate, undefined, line);
  const fields = { time, length: length.num > 0 ? length : fraction(0), name: cell('name'), note: cell('note') };
  if (time.num < 0) {
    const what = `“${fields.name || fields.note}” lies before the start of the time line`;
    file.findings.push({ at: `line ${line}`, what, done: 'kept it there, where it becomes no chapter' });
  }
  file.markers.push(named(marker({ ...fields, colour: cell('colour').toLowerCase() }), `line ${line}`, file.findings));
}

const TIMECODE = /^\d{1,3}:\d{2}:\d{2}(?:[:;]\d{2,3}|,\d{2})$/;

/** Where the table has timecode, the frame that the time line starts at: as told, or the full hour before its first. */
function startOf(
  rows: readonly TableRow[],
  timeAt: number,
  { rate, start }: ReadOptions,
  file: MarkerFile,
): number | undefined {
  if (!rate) return undefined;
  let earliest = Number.MAX_SAFE_INTEGER;
  for (const { cells } of rows) {
    const text = cells[timeAt]?.trim() ?? '';
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
export function writeTable(file: MarkersToWrite): string {
  const { rate } = file;
  const rows = file.markers.map(({ time, length, name, note, colour }) => ({
    ...(rate
      ? {
          timecode: timecodeOfFrame((file.startFrame ?? 0) + frameAtTime(time, rate), rate),
          frame: frameAtTime(time, rate),
        }
      : {}),
    seconds: toDecimalUp(time, 9),
    length: toDecimal(length, 9),
    name,
    note,
    colour,
  }));
  const fields = [...(rate ? ['timecode', 'frame'] : []), 'seconds', 'length', 'name', 'note', 'colour'];
  return `${Papa.unparse({ fields, data: rows })}\r\n`;
}

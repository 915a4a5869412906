import { ceil, type Fraction, fraction, fromDecimal, minus, times } from '../time';
import { EntryReader, type MarkerFile, MarkerFileError, type MarkersToWrite, marker, spanEnd } from './marker';

interface JsonChapter {
  startTime?: unknown;
  endTime?: unknown;
  title?: unknown;
  toc?: unknown;
}

/** Seconds that a JSON number stands for, exact to the nanosecond. */
function secondsOf(value: unknown): Fraction | undefined {
  if (typeof value !== 'number' || !Number.isFinite(value) || value < 0) return undefined;
  return fromDecimal(Number.isInteger(value) ? String(value) : value.toFixed(9));
}

/**
 * Reads JSON chapters (podcast namespace, JSON Chapters Format 1.2): `startTime` in seconds, `title`, and `toc: false`
 * for chapters that viewers must not see.
 * @throws MarkerFileError naming the chapter that cannot be read
 */
export function readJsonChapters(data: unknown): MarkerFile {
  const file: MarkerFile = { format: 'json', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  const { chapters } = data as { chapters?: unknown };
  if (!Array.isArray(chapters)) throw new MarkerFileError('there is no list “chapters”', 0);
  const entries = new EntryReader(file);
  chapters.forEach((chapter: JsonChapter | null, index) => {
    const at = `chapter ${index + 1}`;
    entries.entry(at, () => readChapter(chapter, at, file));
  });
  return entries.done();
}

function readChapter(chapter: JsonChapter | null, at: string, file: MarkerFile): void {
  const time = secondsOf(chapter?.startTime);
  if (!chapter || !time) throw new MarkerFileError(`${at}: startTime should be seconds, zero or more`, 0);
  const end = secondsOf(chapter.endTime);
  const length = end ? minus(end, time) : fraction(0);
  const name = typeof chapter.title === 'string' ? chapter.title : '';
  if (name === '') file.findings.push({ at, what: 'a chapter without a title', done: 'kept it without a name' });
  file.markers.push(
    marker({ time, length: length.num > 0 ? length : fraction(0), name, hidden: chapter.toc === false }),
  );
}

/** The first thousandth of a second that does not lie before a time: cut down, it would lie in the frame before. */
const seconds = (time: Fraction) => ceil(times(time, fraction(1000))) / 1000;

/** Writes markers as JSON chapters, to the thousandth of a second. */
export function writeJsonChapters(file: Pick<MarkersToWrite, 'markers' | 'end'>): string {
  const chapters = file.markers.map(({ time, name, hidden, length }, index) => ({
    startTime: seconds(time),
    title: name,
    ...(length.num > 0 || file.end ? { endTime: seconds(spanEnd(file, index)) } : {}),
    ...(hidden ? { toc: false } : {}),
  }));
  return `${JSON.stringify({ version: '1.2.0', chapters }, null, 2)}\n`;
}

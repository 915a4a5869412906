import { chapterText, type Fraction, floor, fraction, viewerTime, ZERO } from '../time';
import { type MarkerFile, MarkerFileError, type MarkersToWrite, marker } from './marker';

const TIME = String.raw`(?:\d{1,3}:)?\d{1,3}:[0-5]\d(?:\.\d{1,3})?`;
/** A time ends where a word would: “1:23” in “1:23/4” or in an address is none. */
const FIRST = new RegExp(String.raw`^[\s*•–—-]*[([]?(${TIME})(?:[)\]]|(?=[\s–—:|-]|$))\s*(?:[-–—:|]\s*)?(.*)$`);
const TIME_AT_END = new RegExp(String.raw`(${TIME})[)\]]?$`);
const LONGEST_TIME_AT_END = 'hhh:mmm:ss.mmm)'.length;
/** What stands between a title and a time after it. */
const BETWEEN = /(?:\s+|\s*[([]|[–—|]|[-:](?=\s))\s*(?:[-–—:|]\s*)?[([]?$/;
const LONGEST_BETWEEN = 40;

interface TimedLine {
  time: Fraction;
  name: string;
}

/** A line that ends with a time. Only the line's end is searched, so that a line of any length costs the same. */
function timeAtEnd(line: string): TimedLine | undefined {
  const text = line.trimEnd();
  const found = TIME_AT_END.exec(text.slice(-LONGEST_TIME_AT_END));
  const time = plainTime(found?.[1] ?? '');
  if (!found || !time) return undefined;
  const before = text.slice(0, text.length - found[0].length);
  const near = before.slice(-LONGEST_BETWEEN);
  const between = BETWEEN.exec(near);
  const name = before
    .slice(0, before.length - near.length + (between?.index ?? 0))
    .replace(/^[\s*•]+/, '')
    .trim();
  return between && name !== '' ? { time, name } : undefined;
}

function timeAtStart(line: string): TimedLine | undefined {
  const found = FIRST.exec(line);
  const time = plainTime(found?.[1] ?? '');
  return time && { time, name: (found?.[2] ?? '').trim() };
}

/** A time as people write it: `m:ss`, `mm:ss`, `h:mm:ss`, with a fraction of a second if wished. */
export function plainTime(text: string): Fraction | undefined {
  const match = /^(?:(\d{1,3}):)?(\d{1,3}):([0-5]\d)(?:\.(\d{1,3}))?$/.exec(text.trim());
  if (!match) return undefined;
  const [hours, minutes, seconds] = [match[1] ?? '0', match[2] ?? '0', match[3] ?? '0'].map(Number) as [
    number,
    number,
    number,
  ];
  if (match[1] !== undefined && minutes > 59) return undefined;
  return fraction(((hours * 60 + minutes) * 60 + seconds) * 1000 + Number((match[4] ?? '').padEnd(3, '0')), 1000);
}

/**
 * Takes the chapter list out of a description: lines that start or end with a time. Other lines are passed over.
 * @throws MarkerFileError where no line has a time
 */
export function readText(text: string): MarkerFile {
  const file: MarkerFile = { format: 'text', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  text.split(/\r\n|\r|\n/).forEach((line, index) => {
    const timed = timeAtStart(line) ?? timeAtEnd(line);
    if (!timed) return;
    const { time, name } = timed;
    if (name === '')
      file.findings.push({ at: `line ${index + 1}`, what: 'a time without a title', done: 'kept it without a name' });
    file.markers.push(marker({ time, name }));
  });
  if (file.markers.length === 0) throw new MarkerFileError('no line starts or ends with a time such as 4:05', 0);
  return file;
}

/** Writes markers as the lines that viewers read. */
export function writeText(file: Pick<MarkersToWrite, 'markers'>): string {
  const longest = file.markers.reduce((most, { time }) => Math.max(most, floor(time)), floor(ZERO));
  const lines = file.markers.map(({ time, name }) => ({
    stamp: viewerTime(time, longest),
    title: name.replace(/\s+/g, ' ').trim(),
  }));
  return `${chapterText(lines)}\n`;
}

import { chapterText } from '../chapters';
import { type Fraction, floor, fraction, viewerTime, ZERO } from '../time';
import { type MarkerFile, MarkerFileError, type MarkersToWrite, marker } from './marker';

const TIME = String.raw`(?:\d{1,3}:)?\d{1,3}:[0-5]\d(?:\.\d{1,3})?`;
/** A time ends where a word would: “1:23” in “1:23/4” or in an address is none. */
const FIRST = new RegExp(String.raw`^[\s*•–—-]*[([]?(${TIME})(?:[)\]]|(?=[\s–—:|-]|$))\s*(?:[-–—:|]\s*)?(.*)$`);
const LAST = new RegExp(
  String.raw`^[\s*•]*(.*?\S)(?:\s+|\s*[([]|[–—|]|[-:](?=\s))\s*(?:[-–—:|]\s*)?[([]?(${TIME})[)\]]?\s*$`,
);

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
    const first = FIRST.exec(line);
    const last = first ? undefined : LAST.exec(line);
    const time = plainTime(first?.[1] ?? last?.[2] ?? '');
    if (!time) return;
    const name = (first?.[2] ?? last?.[1] ?? '').trim();
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

import { fraction, minus } from '../time';
import { EntryReader, type MarkerFile, MarkerFileError, marker } from './marker';

const TIMING = /^(\d{1,3}):([0-5]\d):([0-5]\d)[,.](\d{3})\s*-->\s*(\d{1,3}):([0-5]\d):([0-5]\d)[,.](\d{3})/;

/**
 * Reads SubRip captions as markers, one for each caption; one of several lines has them in its note, too.
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readSubrip(text: string): MarkerFile {
  const file: MarkerFile = { format: 'subrip', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  const entries = new EntryReader(file);
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\r|\n/);
  for (let at = 0; at < lines.length; at += 1) {
    const line = lines[at] ?? '';
    if (!line.includes('-->')) continue;
    const timingAt = at;
    const words: string[] = [];
    while (at + 1 < lines.length && lines[at + 1]?.trim() !== '') words.push(lines[++at] ?? '');
    entries.entry(timingAt + 1, () => readCaption(line, words, timingAt, file));
  }
  return entries.done();
}

function readCaption(line: string, words: readonly string[], at: number, file: MarkerFile): void {
  const match = TIMING.exec(line.trim());
  if (!match) throw new MarkerFileError('a caption’s times should look like 00:01:02,345 --> 00:01:04,000', at + 1);
  const clock = (from: number) => {
    const [h, m, s, ms] = match.slice(from, from + 4).map(Number) as [number, number, number, number];
    return fraction(((h * 60 + m) * 60 + s) * 1000 + ms, 1000);
  };
  const time = clock(1);
  const length = minus(clock(5), time);
  if (length.num < 0) throw new MarkerFileError('a caption ends before it starts', at + 1);
  const plain = words.map((each) => each.replace(/<[^<>]*>/g, '').trim());
  const name = plain.join(' ').trim();
  file.markers.push(marker({ time, length, name, note: plain.length > 1 ? plain.join('\n') : '' }));
}

import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { ceil, type Fraction, fraction, minus, times } from '../time';
import {
  EntryReader,
  type MarkerFile,
  MarkerFileError,
  type MarkersToWrite,
  marker,
  type ReadMarker,
  spanEnd,
} from './marker';

const STAMP = /^(\d{1,6}):([0-5]?\d):([0-5]?\d)(?:\.(\d{1,9}))?$/;
const DEEPEST = 32;

/** A Matroska XML time (hours, minutes, seconds, up to nine digits of a second), or undefined. */
export function matroskaTime(text: string): Fraction | undefined {
  const match = STAMP.exec(text.trim());
  if (!match) return undefined;
  const [hours, minutes, seconds] = [match[1], match[2], match[3]].map(Number) as [number, number, number];
  const nanoseconds = Number((match[4] ?? '').padEnd(9, '0'));
  try {
    return fraction(((hours * 60 + minutes) * 60 + seconds) * 1e9 + nanoseconds, 1e9);
  } catch {
    return undefined;
  }
}

function matroskaStamp(time: Fraction): string {
  const all = BigInt(ceil(times(time, fraction(1e9))));
  const seconds = Number(all / 1_000_000_000n);
  const two = (value: number) => String(value).padStart(2, '0');
  const clock = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60].map(two).join(':');
  return `${clock}.${String(all % 1_000_000_000n).padStart(9, '0')}`;
}

type Node = Record<string, unknown>;
const list = (value: unknown): Node[] => (Array.isArray(value) ? value : value === undefined ? [] : [value]) as Node[];
const text = (value: unknown) => (typeof value === 'string' ? value : '');

/**
 * Reads Matroska chapters as XML (element names of RFC 9559, section 5.1.7): nested chapters, those with the hidden flag
 * as not for viewers, of several languages the first.
 * @throws MarkerFileError naming the line or the chapter that cannot be read
 */
export function readMatroska(xml: string): MarkerFile {
  const valid = XMLValidator.validate(xml);
  if (valid !== true) throw new MarkerFileError(valid.err.msg, valid.err.line);
  const file: MarkerFile = { format: 'matroska', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  const parser = new XMLParser({ parseTagValue: false, trimValues: false, processEntities: true });
  let root: Node;
  try {
    root = parser.parse(xml) as Node;
  } catch (error) {
    throw new MarkerFileError(`the XML cannot be read: ${(error as Error).message}`, 0);
  }
  if (typeof root.Chapters !== 'object') throw new MarkerFileError('there is no Chapters element', 0);
  const entries = new EntryReader(file);
  list((root.Chapters as Node).EditionEntry).forEach((edition, index) => {
    const hidden = text(edition.EditionFlagHidden).trim() === '1';
    readAtoms(edition.ChapterAtom, `edition ${index + 1}`, hidden, 0, { file, entries });
  });
  return entries.done();
}

interface Into {
  file: MarkerFile;
  entries: EntryReader;
}

function readAtoms(atoms: unknown, path: string, hidden: boolean, depth: number, into: Into): void {
  if (depth > DEEPEST) throw new MarkerFileError(`${path}: chapters are nested more than ${DEEPEST} deep`, 0);
  list(atoms).forEach((atom, index) => {
    const at = `${path}, chapter ${index + 1}`;
    const unseen = hidden || text(atom.ChapterFlagHidden).trim() === '1';
    into.entries.entry(at, () => readAtom(atom, at, unseen, into.file));
    readAtoms(atom.ChapterAtom, at, unseen, depth + 1, into);
  });
}

function readAtom(atom: Node, at: string, unseen: boolean, file: MarkerFile): void {
  const time = matroskaTime(text(atom.ChapterTimeStart));
  if (!time) throw new MarkerFileError(`${at}: ChapterTimeStart should look like 00:01:02.500000000`, 0);
  const end = atom.ChapterTimeEnd === undefined ? undefined : matroskaTime(text(atom.ChapterTimeEnd));
  const length = end ? minus(end, time) : fraction(0);
  const displays = list(atom.ChapterDisplay);
  if (displays.length > 1) {
    file.findings.push({ at, what: `names in ${displays.length} languages`, done: 'took the first' });
  }
  if (length.num < 0) file.findings.push({ at, what: 'it ends before it starts', done: 'left its length out' });
  const name = text(displays[0]?.ChapterString);
  file.markers.push(marker({ time, length: length.num > 0 ? length : fraction(0), name, hidden: unseen }));
}

/** Writes markers as Matroska chapters in XML, in one edition, with the hidden flag where viewers must not see one. */
export function writeMatroska(file: Pick<MarkersToWrite, 'markers' | 'end'>): string {
  const atom = ({ time, name, hidden }: ReadMarker, index: number) => ({
    ChapterUID: index + 1,
    ChapterTimeStart: matroskaStamp(time),
    ChapterTimeEnd: matroskaStamp(spanEnd(file, index)),
    ...(hidden ? { ChapterFlagHidden: 1 } : {}),
    ChapterDisplay: { ChapterString: xmlText(name), ChapterLanguage: 'und' },
  });
  const builder = new XMLBuilder({ format: true, indentBy: '  ' });
  const body = builder.build({ Chapters: { EditionEntry: { EditionUID: 1, ChapterAtom: file.markers.map(atom) } } });
  return `<?xml version="1.0" encoding="UTF-8"?>\n${body}`;
}

/** Text without the control characters that XML 1.0 has no way to write (section 2.2, "Char"). */
function xmlText(name: string): string {
  return [...name].filter((sign) => sign >= ' ' && !/[\ufffe\uffff\ud800-\udfff]/u.test(sign)).join('');
}

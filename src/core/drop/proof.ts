import { type CountryRule, countriesInWords, DECLARATION_NAMES, type Declarations } from '../declarations';
import type { Privacy } from '../delivery';
import type { ChapterLine } from '../time';

/** What a site shows of a video, or what it should show. Undefined: the site does not tell, or nothing is expected. */
export interface Showing {
  title: string | undefined;
  text: string | undefined;
  tags: readonly string[] | undefined;
  chapters: readonly ChapterLine[] | undefined;
  privacy: Privacy | undefined;
  /** Names that the site gives the playlists, in order. */
  groups: readonly string[] | undefined;
  /** SHA-256 of the thumbnail, in hexadecimal. */
  pictureDigest: string | undefined;
  /** SHA-256 of the file that arrived, in hexadecimal. */
  fileDigest: string | undefined;
  /** Languages of the captions. */
  captions?: readonly string[];
  declared?: Partial<Declarations>;
}

/** One field in which a site shows something else than was meant. */
export interface Difference {
  field: string;
  meant: string;
  shown: string;
}

/** A declared value in words; sites that keep nothing where nothing is said mean the same. */
export function declaredInWords(value: unknown): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value;
  if (!Array.isArray(value)) return value ? countriesInWords(value as CountryRule) : '';
  return value
    .map((each) => (typeof each === 'object' ? Object.values(each as object).join(': ') : String(each)))
    .join(', ');
}

const chapterList = (lines: readonly ChapterLine[]) => lines.map((line) => `${line.stamp} ${line.title}`).join('\n');

/** The fields in which what a site shows differs from what was meant; fields that are not expected are not compared. */
export function differences(meant: Showing, shown: Showing): Difference[] {
  const found: Difference[] = [];
  const compare = (field: string, a: string | undefined, b: string | undefined) => {
    if (a !== undefined && a !== b) found.push({ field, meant: a, shown: b ?? 'nothing' });
  };
  const set = (values: readonly string[] | undefined) => values && [...values].sort().join(', ');
  compare('title', meant.title, shown.title);
  compare('description', meant.text, shown.text);
  compare('chapters', meant.chapters && chapterList(meant.chapters), shown.chapters && chapterList(shown.chapters));
  compare('tags', meant.tags?.join(', '), shown.tags?.join(', '));
  compare('privacy', meant.privacy, shown.privacy);
  compare('playlist', set(meant.groups), set(shown.groups));
  // The first signs of a digest tell two files apart for those who read it.
  const brief = (digest: string | undefined) => digest?.slice(0, 12);
  compare('thumbnail', brief(meant.pictureDigest), brief(shown.pictureDigest));
  compare('file', brief(meant.fileDigest), brief(shown.fileDigest));
  compare('captions', set(meant.captions), set(shown.captions));
  for (const [field, value] of Object.entries(meant.declared ?? {})) {
    if (value === undefined) continue;
    compare(
      DECLARATION_NAMES[field as keyof Declarations],
      declaredInWords(value),
      declaredInWords(shown.declared?.[field as keyof Declarations]),
    );
  }
  return found;
}

/** How many fields a proofing compares. */
export function fieldsMeant(meant: Showing): number {
  const { declared, ...rest } = meant;
  const fields = [...Object.values(rest), ...Object.values(declared ?? {})];
  return fields.filter((value) => value !== undefined).length;
}

import type { ChapterLine } from '../chapters';
import type { Privacy } from '../delivery';

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
}

/** One field in which a site shows something else than was meant. */
export interface Difference {
  field: string;
  meant: string;
  shown: string;
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
  compare('thumbnail', meant.pictureDigest, shown.pictureDigest);
  compare('file', meant.fileDigest, shown.fileDigest);
  return found;
}

/** How many fields a proofing compares. */
export function fieldsMeant(meant: Showing): number {
  return Object.values(meant).filter((value) => value !== undefined).length;
}

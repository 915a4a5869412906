import { DECLARATION_NAMES, type Declarations } from '../declarations';
import type { Privacy } from '../delivery';
import type { Fraction } from '../time';
import { toDecimal } from '../time';
import { declaredInWords, type Showing } from './proof';
import type { SiteWords } from './words-for-site';

/** Everything that is given to a site beside the file, as it is kept once it has gone out. */
export interface GivenToSite {
  words: SiteWords;
  privacy: Privacy;
  /** Where it has one: a mark of the password, which tells it from others and from which it cannot be had. */
  passwordMark?: string;
  /** Site ids of playlists. */
  playlists: string[];
  pictureDigest?: string;
  moment?: Fraction;
  captions: { id: string; language: string }[];
}

/** What was given, from the text that was kept of it; undefined where there is none. */
export function givenFrom(text: string | undefined): GivenToSite | undefined {
  return text === undefined ? undefined : ((JSON.parse(text) as GivenToSite | null) ?? undefined);
}

/** A field that goes out with another value than it had; both in words, '' for nothing. */
export interface ChangedField {
  field: string;
  was: string;
  is: string;
}

const PRIVACY_WORDS: Record<Privacy, string> = {
  everyone: 'everyone',
  link: 'by link only',
  password: 'with a password',
  private: 'private',
};

/** Fields of a reading that have another name among what is given. */
const GIVEN_AS: Readonly<Record<string, string>> = { description: 'text', playlist: 'playlists' };

/**
 * Whether a field that a site shows otherwise is one that it was given just now, so that nobody else can have changed it.
 * @param was what it had been given before; undefined where it was given all
 */
export function isGiven(field: string, was: GivenToSite | undefined, is: GivenToSite | undefined): boolean {
  if (!was || !is) return true;
  const given = changedFields(was, is, (id) => id).map((each) => each.field);
  // Where chapters stand in the text, they are given with it.
  return given.includes(GIVEN_AS[field] ?? field) || (field === 'chapters' && given.includes('text'));
}

/**
 * What a site was given, with what it really has in some fields: these alone go out again where they are meant otherwise.
 * @param fields by the names that a reading has for them
 */
export function givenAsShown(given: GivenToSite, fields: ReadonlySet<string>, shown: Showing): GivenToSite {
  const names = Object.keys(given.words.declared).filter((name) =>
    fields.has(DECLARATION_NAMES[name as keyof Declarations]),
  );
  const declared = Object.fromEntries(names.map((name) => [name, shown.declared?.[name as keyof Declarations]]));
  return {
    ...given,
    words: {
      ...given.words,
      ...(fields.has('title') && { title: shown.title ?? '' }),
      ...(fields.has('description') && { text: shown.text ?? '' }),
      ...(fields.has('tags') && { tags: [...(shown.tags ?? [])] }),
      ...(fields.has('chapters') && { chapters: [...(shown.chapters ?? [])] }),
      declared: { ...given.words.declared, ...declared },
    },
    ...(fields.has('privacy') && shown.privacy && { privacy: shown.privacy }),
    ...(fields.has('playlist') && { playlists: [...(shown.groups ?? [])] }),
    ...(fields.has('thumbnail') && { pictureDigest: shown.pictureDigest }),
    ...(fields.has('captions') && { captions: (shown.captions ?? []).map((language) => ({ id: '', language })) }),
  };
}

/**
 * The words that a site has not been given yet: the fields that are others than before. Chapters, their times and the end
 * of the last go together.
 * @param was what it was given last; undefined where it is to be given all
 */
export function wordsToGive(was: SiteWords | undefined, is: SiteWords): Partial<SiteWords> {
  if (!was) return is;
  const chapters = ({ chapters, chapterTimes, duration }: SiteWords) => ({ chapters, chapterTimes, duration });
  const names = new Set([...Object.keys(was.declared), ...Object.keys(is.declared)] as (keyof Declarations)[]);
  const declared = [...names].filter((name) => !same(was.declared[name], is.declared[name]));
  return {
    ...(was.title !== is.title && { title: is.title }),
    ...(was.text !== is.text && { text: is.text }),
    ...(!same(was.tags, is.tags) && { tags: is.tags }),
    ...(!same(chapters(was), chapters(is)) && chapters(is)),
    ...(declared.length > 0 && { declared: Object.fromEntries(declared.map((name) => [name, is.declared[name]])) }),
  };
}

const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/**
 * The fields in which what would go to a site now differs from what went there last, in the order of the Sheet.
 * @param playlistName the title of a playlist by its id at the site
 */
export function changedFields(was: GivenToSite, is: GivenToSite, playlistName: (id: string) => string): ChangedField[] {
  const found: ChangedField[] = [];
  const compare = <T>(field: string, a: T, b: T, say: (value: T) => string) => {
    if (!same(a, b)) found.push({ field, was: say(a), is: say(b) });
  };
  const plain = (text: string) => text;
  const lines = ({ chapters }: SiteWords) => chapters.map(({ stamp, title }) => `${stamp} ${title}`).join('\n');
  compare('privacy', was.privacy, is.privacy, (privacy) => PRIVACY_WORDS[privacy]);
  // One that comes or goes is told by the privacy.
  if (was.passwordMark && is.passwordMark) {
    compare('password', was.passwordMark, is.passwordMark, (mark) =>
      mark === was.passwordMark ? 'the one before' : 'another one',
    );
  }
  compare('title', was.words.title, is.words.title, plain);
  compare('text', was.words.text, is.words.text, plain);
  compare('chapters', lines(was.words), lines(is.words), plain);
  compare('tags', was.words.tags, is.words.tags, (tags) => tags.join(', '));
  compare('playlists', was.playlists, is.playlists, (ids) => ids.map(playlistName).join(', '));
  compare('thumbnail', was.pictureDigest, is.pictureDigest, (digest) =>
    digest === undefined ? 'the site’s own' : digest === was.pictureDigest ? 'the one before' : 'another one',
  );
  compare('thumbnail', was.moment, is.moment, (at) => (at ? `the frame at ${toDecimal(at, 2)} s` : 'the site’s own'));
  compare('captions', was.captions, is.captions, (tracks) => tracks.map(({ language }) => language).join(', '));
  const declared = new Set([...Object.keys(was.words.declared), ...Object.keys(is.words.declared)]);
  for (const name of declared as Set<keyof Declarations>) {
    // In words: what a site is not told and what says nothing are the same.
    const [told, meant] = [declaredInWords(was.words.declared[name]), declaredInWords(is.words.declared[name])];
    compare(DECLARATION_NAMES[name], told, meant, plain);
  }
  return found;
}

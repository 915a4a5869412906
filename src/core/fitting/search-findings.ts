/** What search looks at. */
export interface SearchInput {
  title: string;
  text: string;
  tags: readonly string[];
  channel?: string;
  /** Titles of earlier videos of the channel. */
  earlier?: readonly string[];
}

const plain = (text: string) => text.normalize('NFKC').toLocaleLowerCase('en');
const wordsOf = (text: string): string[] => plain(text).match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
/** A word without the ending that most often sets two spellings apart. */
const stem = (word: string) => word.replace(/(?:es|s)$/, '');

/** Words so common that nobody searches for them alone. */
const COMMON = new Set([
  'a',
  'an',
  'and',
  'at',
  'by',
  'for',
  'from',
  'in',
  'is',
  'it',
  'of',
  'on',
  'or',
  'the',
  'to',
  'with',
]);

/** What would help people to find the video; none of it keeps it from being sent. */
export function searchFindings({ title, text, tags, channel, earlier = [] }: SearchInput): string[] {
  const findings: string[] = [];
  const letters = title.replace(/[^\p{L}]/gu, '');
  if (
    letters.length > 3 &&
    letters === letters.toLocaleUpperCase('en') &&
    letters !== letters.toLocaleLowerCase('en')
  ) {
    findings.push('The title is all in capitals');
  }
  if (channel && plain(title).includes(plain(channel))) findings.push('The title repeats the channel’s name');
  if (earlier.some((other) => plain(other).trim() === plain(title).trim())) {
    findings.push('An earlier video has the same title');
  }
  const inText = new Set(wordsOf(text).map(stem));
  const absent = wordsOf(title).filter((word) => !COMMON.has(word) && !inText.has(stem(word)));
  if (absent.length > 0 && text.trim() !== '') {
    findings.push(`Words of the title that the text does not use: ${[...new Set(absent)].join(', ')}`);
  }
  const same = new Map<string, string>();
  for (const tag of tags) {
    const key = wordsOf(tag).map(stem).join('');
    const first = same.get(key);
    if (first !== undefined) findings.push(`The tags “${first}” and “${tag}” say the same`);
    else same.set(key, tag);
  }
  return findings;
}

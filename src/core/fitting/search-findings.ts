import { isCommon, plainText, stemOf, wordsIn } from '../words';

/** What search looks at. */
export interface SearchInput {
  title: string;
  /** What people would search for, where the title has more than that. */
  phrase?: string;
  text: string;
  tags: readonly string[];
  channel?: string;
  /** Titles of earlier videos of the channel. */
  earlier?: readonly string[];
}

/** What would help people to find the video; none of it keeps it from being sent. */
export function searchFindings(input: SearchInput): string[] {
  const { title, text, tags, channel, earlier = [] } = input;
  const findings: string[] = [];
  const letters = title.replace(/[^\p{L}]/gu, '');
  if (
    letters.length > 3 &&
    letters === letters.toLocaleUpperCase('en') &&
    letters !== letters.toLocaleLowerCase('en')
  ) {
    findings.push('The title is all in capitals');
  }
  if (channel && plainText(title).includes(plainText(channel))) findings.push('The title repeats the channel’s name');
  if (earlier.some((other) => plainText(other).trim() === plainText(title).trim())) {
    findings.push('An earlier video has the same title');
  }
  const inText = new Set(wordsIn(text).map(stemOf));
  const absent = wordsIn(title).filter((word) => !isCommon(word) && !inText.has(stemOf(word)));
  if (absent.length > 0 && text.trim() !== '') {
    findings.push(`Words of the title that the text does not use: ${[...new Set(absent)].join(', ')}`);
  }
  const late = comesLate(input);
  if (late) findings.push(late);
  const same = new Map<string, string>();
  for (const tag of tags) {
    // Spelled joined, apart or in the plural it is a variant that people put there on purpose.
    const key = wordsIn(tag).join(' ');
    const first = same.get(key);
    if (first !== undefined) findings.push(`The tags “${first}” and “${tag}” say the same`);
    else same.set(key, tag);
  }
  return findings;
}

/** Numbers of episodes and the like, with what sets them off from the title. */
const NUMBERING = /^(?:(?:episode|ep|part|week|no|lesson|chapter|day)\b[.\s]*#?|#)\d+\s*[:|–—.-]*\s*/iu;

/** Why the phrase that people search for is not the first that they read, in the title or in the text. */
function comesLate({ title, phrase = title, text, channel }: SearchInput): string | undefined {
  const at = plainText(title).indexOf(plainText(phrase.trim()));
  if (at > 0) return `The title’s phrase “${phrase.trim()}” is not at the front: “${title.slice(0, at).trim()}” is`;
  const ahead = NUMBERING.exec(title)?.[0] ?? '';
  if (ahead !== '' && ahead.length < title.length)
    return `The title’s phrase is not at the front: “${ahead.trim()}” is`;
  if (channel && plainText(title).startsWith(plainText(channel)) && plainText(title) !== plainText(channel)) {
    return `The title’s phrase is not at the front: “${channel}” is`;
  }
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const wanted = wordsIn(title)
    .filter((word) => !isCommon(word))
    .map(stemOf);
  const has = (line: string) =>
    wordsIn(line)
      .map(stemOf)
      .some((word) => wanted.includes(word));
  if (lines.length > 1 && !has(lines[0] ?? '') && lines.some(has)) {
    return 'The text’s first line uses no word of the title';
  }
  return undefined;
}

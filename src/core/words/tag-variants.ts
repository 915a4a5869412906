import pluralize from 'pluralize';
import { isCommon, plainText, wordsIn } from './word-shapes';

/** A tag that could be added, with why. */
export interface TagOffer {
  tag: string;
  why: string;
}

/** Endings that British and American spelling have apart; from memory. */
const SPELLINGS: [british: RegExp, american: string, american2: RegExp, british2: string][] = [
  [
    /(?<=col|harb|lab|flav|fav|neighb|od|hon|arm|vap|vig|hum)our/,
    'or',
    /(?<=col|harb|lab|flav|fav|neighb|od|hon|arm|vap|vig|hum)or/,
    'our',
  ],
  [/(?<=[a-z]{3})ise(?=[drs]?\b)/, 'ize', /(?<=[a-z]{3})ize(?=[drs]?\b)/, 'ise'],
  [/(?<=[a-z]{3})ising\b/, 'izing', /(?<=[a-z]{3})izing\b/, 'ising'],
  [/\b(cent|met|theat|fib|lit|calib)re/, '$1er', /\b(cent|met|theat|fib|lit|calib)er\b/, '$1re'],
  [/\b(catal|dial|anal)ogue/, '$1og', /\b(catal|dial|anal)og\b/, '$1ogue'],
  [
    /\b(travel|model|label|channel|level|tunnel)l(?=ing|ed|er)/,
    '$1',
    /\b(travel|model|label|channel|level|tunnel)(?=ing|ed|er)/,
    '$1l',
  ],
  [/\bplough/, 'plow', /\bplow/, 'plough'],
  [/\bmould/, 'mold', /\bmold/, 'mould'],
  [/\bgrey/, 'gray', /\bgray/, 'grey'],
  [/\baluminium/, 'aluminum', /\baluminum/, 'aluminium'],
];

/** Endings in -ise and -our that belong to the word in both spellings. */
const NEVER =
  /\b(?:exercise|promise|noise|precise|otherwise|rise|wise|raise|praise|surprise|advise|franchise|enterprise)\w?\b/;

function otherSpelling(tag: string): TagOffer | undefined {
  if (NEVER.test(tag)) return undefined;
  for (const [british, american, american2, british2] of SPELLINGS) {
    if (british.test(tag)) return { tag: tag.replace(british, american), why: 'American spelling' };
    if (american2.test(tag)) return { tag: tag.replace(american2, british2), why: 'British spelling' };
  }
  return undefined;
}

/** A word in two, where both halves are words that are used otherwise. */
function apart(word: string, known: ReadonlySet<string>): string | undefined {
  for (let at = 3; at <= word.length - 3; at += 1) {
    const [first, second] = [word.slice(0, at), word.slice(at)];
    const both = [first, second].every((half) => known.has(half) || known.has(pluralize.singular(half)));
    if (both) return `${first} ${second}`;
  }
  return undefined;
}

function otherNumber(words: readonly string[]): TagOffer | undefined {
  const last = words.at(-1) ?? '';
  if (last.length < 3 || isCommon(last) || /\d$/.test(last)) return undefined;
  const [one, many] = [pluralize.singular(last), pluralize.plural(last)];
  if (one === many) return undefined;
  const other = last === one ? many : one;
  return { tag: [...words.slice(0, -1), other].join(' '), why: last === one ? 'plural' : 'singular' };
}

/**
 * Ways in which people also write a tag: joined and apart, singular and plural, British and American spelling.
 * @param context other words of the video, by which a joined word can be taken apart
 */
export function tagVariants(tag: string, context: readonly string[] = []): TagOffer[] {
  const plain = plainText(tag).trim();
  const words = wordsIn(plain);
  const known = new Set(context.flatMap(wordsIn).filter((word) => word.length > 2 && !isCommon(word)));
  const offers: (TagOffer | undefined)[] = [];
  if (words.length > 1) offers.push({ tag: words.join(''), why: 'joined' });
  if (/[\p{L}\p{N}]-[\p{L}\p{N}]/u.test(plain)) offers.push({ tag: words.join(' '), why: 'without the hyphen' });
  const two = words.length === 1 ? apart(words[0] ?? '', known) : undefined;
  if (two) offers.push({ tag: two, why: 'apart' });
  offers.push(otherNumber(words), otherSpelling(plain));
  const seen = new Set([plain]);
  return offers.filter((offer): offer is TagOffer => {
    if (!offer || seen.has(offer.tag)) return false;
    seen.add(offer.tag);
    return true;
  });
}

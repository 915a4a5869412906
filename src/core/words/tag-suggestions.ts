import type { TagOffer } from './tag-variants';
import { isCommon, stemOf, tagKey, wordsIn } from './word-shapes';

/** An earlier video of a channel, as far as its tags tell something. */
export interface EarlierVideo {
  title: string;
  tags: readonly string[];
}

/** What tags are suggested from. */
export interface SuggestInput {
  title: string;
  summary: string;
  /** What is said, as text. */
  captions: string;
  /** Those that it has already. */
  tags: readonly string[];
  earlier: readonly EarlierVideo[];
}

const MOST = 12;
const LONGEST_PHRASE = 3;

interface Scored extends TagOffer {
  score: number;
}

const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`);

/** Tags that went with the words of this video on earlier ones: more so, the more often and the more only with them. */
function fromEarlier({ title, summary, earlier }: SuggestInput): Scored[] {
  const wanted = new Map(
    wordsIn(`${title} ${summary}`)
      .filter((word) => !isCommon(word))
      .map((word) => [stemOf(word), word]),
  );
  const videos = earlier.map((video) => ({
    ...video,
    stems: new Set(wordsIn(video.title).map(stemOf)),
  }));
  const all = new Map<string, Scored>();
  for (const [stem, word] of wanted) {
    const having = videos.filter(({ stems }) => stems.has(stem));
    const counts = new Map<string, { tag: string; count: number }>();
    for (const tag of having.flatMap(({ tags }) => [...new Map(tags.map((each) => [tagKey(each), each])).values()])) {
      counts.set(tagKey(tag), { tag, count: (counts.get(tagKey(tag))?.count ?? 0) + 1 });
    }
    for (const [key, { tag, count }] of counts) {
      const overall = videos.filter(({ tags }) => tags.some((each) => tagKey(each) === key)).length;
      // How much more often it stands with the word than anywhere: 1 where it stands with every video.
      const lift = count / having.length / (overall / videos.length);
      const score = (count / having.length) * Math.log2(1 + count) * lift;
      const why = `went with “${word}” on ${count} of ${having.length} earlier ${having.length === 1 ? 'video' : 'videos'}`;
      if (score > (all.get(key)?.score ?? 0)) all.set(key, { tag, why, score });
    }
  }
  return [...all.values()];
}

/** Phrases of a text by how often they stand in it; longer ones before the words that they are made of. */
function phrases(text: string): Map<string, number> {
  const counts = new Map<string, number>();
  for (const sentence of text.split(/[.!?;:,\n()“”"]+/)) {
    const words = wordsIn(sentence);
    for (let length = 1; length <= LONGEST_PHRASE; length += 1) {
      for (let at = 0; at + length <= words.length; at += 1) {
        const phrase = words.slice(at, at + length);
        // A phrase neither begins nor ends in a word that says nothing.
        if (isCommon(phrase[0] ?? '') || isCommon(phrase.at(-1) ?? '') || /^\d+$/.test(phrase.join(''))) continue;
        counts.set(phrase.join(' '), (counts.get(phrase.join(' ')) ?? 0) + 1);
      }
    }
  }
  return counts;
}

/** Frequent phrases of a text; those that only ever stand inside a longer frequent one are left to that one. */
function frequent(text: string, least: number, where: string): Scored[] {
  const counts = phrases(text);
  const often = [...counts].filter(([phrase, count]) => count >= (phrase.includes(' ') ? least : least + 1));
  const inside = (phrase: string, count: number) =>
    often.some(([other, more]) => other !== phrase && more >= count && ` ${other} `.includes(` ${phrase} `));
  return often
    .filter(([phrase, count]) => phrase.length > 2 && !inside(phrase, count))
    .map(([tag, count]) => ({
      tag,
      why: `stands ${times(count)} in the ${where}`,
      score: (Math.log2(1 + count) * tag.split(' ').length) / 4,
    }));
}

/**
 * Tags that the video could have, the most telling first: those that went with its words on the channel's earlier videos,
 * and frequent phrases of its captions and its summary. What it has already, in any spelling, is left out.
 */
export function suggestTags(input: SuggestInput): TagOffer[] {
  const has = new Set(input.tags.map(tagKey));
  const all = [
    ...fromEarlier(input),
    ...frequent(input.captions, 2, 'captions'),
    ...frequent(`${input.title}.\n${input.summary}`, 2, 'title and summary'),
  ].sort((a, b) => b.score - a.score || a.tag.localeCompare(b.tag));
  const offers = new Map<string, TagOffer>();
  for (const { tag, why } of all) {
    const key = tagKey(tag);
    if (key !== '' && !has.has(key) && !offers.has(key)) offers.set(key, { tag, why });
  }
  return [...offers.values()].slice(0, MOST);
}

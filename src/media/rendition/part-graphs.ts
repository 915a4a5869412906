import type { CutFacts, CutSpan } from '@/core/delivery';
import { keptParts, type Recipe } from '@/core/renditions';
import { compare, type Fraction, fraction, minus, over, toDecimal, toNumber, ZERO } from '@/core/time';
import { FROM_OUTSIDE } from '../program';

/** What a recipe asks of the parts of a cut. */
type PartsOfRecipe = Pick<Recipe, 'from' | 'to' | 'without' | 'silence' | 'swaps'>;

/** Filters with a name for what comes out of them, and the inputs that they need beside the cut, as words for ffmpeg. */
export interface Graph {
  inputs: string[];
  filters: string;
  out: string;
}

/** Layouts by ffmpeg's names (ffmpeg-utils, channel layout); others by their number. */
const LAYOUTS: Record<number, string> = { 1: 'mono', 2: 'stereo', 6: '5.1', 8: '7.1' };
/** So long other sound takes to come and to go, inside its span: without, it would click. Common practice, no source. */
const FADE_SECONDS = 0.01;

const PLACES = 9;

/** A moment of the cut in what is read of it. */
const inRead = (at: Fraction, from: Fraction = ZERO): Fraction => before(at, from);

/** A moment so much earlier, never before the first. */
const before = (time: Fraction, early: Fraction): Fraction => (compare(time, early) <= 0 ? ZERO : minus(time, early));

/** Splits a stream, keeps some parts of it, and joins them again. Every frame passes once, so that nothing piles up. */
function joined(parts: readonly CutSpan[], kind: 'picture' | 'sound', early: Fraction): string {
  const [a, labels] = [kind === 'sound' ? 'a' : '', parts.map((_, index) => `${kind}${index}`)];
  const at = (time: Fraction) => toDecimal(before(time, early), PLACES);
  const each = parts.map(
    ({ from, to }, index) =>
      `[${labels[index]}]${a}trim=start=${at(from)}:end=${at(to)},${a}setpts=PTS-STARTPTS[${labels[index]}k]`,
  );
  const ends = labels.map((label) => `[${label}k]`).join('');
  return [
    `${a}split=${parts.length}${labels.map((label) => `[${label}]`).join('')}`,
    ...each,
    `${ends}concat=n=${parts.length}:v=${kind === 'sound' ? 0 : 1}:a=${kind === 'sound' ? 1 : 0}`,
  ].join(';');
}

/** The parts that stay, in the time of what is read of the cut. */
function partsRead(recipe: PartsOfRecipe, facts: CutFacts): CutSpan[] {
  return keptParts(recipe, facts).map(({ from, to }) => ({
    from: inRead(from, recipe.from),
    to: inRead(to, recipe.from),
  }));
}

/**
 * Leaves parts of the picture out; undefined where none are.
 * @param filters those that go before, comma between
 */
export function pictureGraph(recipe: PartsOfRecipe, facts: CutFacts, filters: string): Graph | undefined {
  if (!recipe.without?.length) return undefined;
  // Half a frame early: times of frames are rounded by containers, and the frame at the moment itself is to be in.
  const early = over(fraction(1, 2), facts.video.rate);
  const join = joined(partsRead(recipe, facts), 'picture', early);
  return { inputs: [], filters: `[0:v:0]${filters},${join}[seen]`, out: 'seen' };
}

/** Times a sample by nothing inside the spans, and by one elsewhere, which leaves it as it is. */
function silenced(spans: readonly CutSpan[], from: Fraction | undefined, sampleRate: number): string {
  // Half a sample early: ffmpeg counts in floating point, and the sample at the moment itself is to be on its right side.
  const early = fraction(1, 2 * sampleRate);
  const terms = spans.map((span) => {
    const [start, end] = [span.from, span.to].map((time) => toDecimal(before(inRead(time, from), early), PLACES));
    return `*(lt(t,${start})+gte(t,${end}))`;
  });
  return `aeval='val(ch)${terms.join('')}':c=same`;
}

/**
 * What is done to parts of the sound: silence, other sound, parts left out. What lies outside keeps each of its samples.
 * Undefined where nothing is done.
 * @param sounds paths of the sounds that take over, by their ids
 * @param after filters that follow for all of it
 */
export function soundGraph(
  recipe: PartsOfRecipe,
  facts: CutFacts,
  sounds: ReadonlyMap<string, string>,
  after: readonly string[] = [],
): Graph | undefined {
  const { silence = [], swaps = [], without = [], from } = recipe;
  const { audio } = facts;
  if (!audio || silence.length + swaps.length + without.length === 0) return undefined;
  const quiet = [...silence, ...swaps];
  const heard = `[0:a:0]${quiet.length > 0 ? silenced(quiet, from, audio.sampleRate) : 'anull'}[heard]`;
  const others = swaps.map(({ from: start, to, sound }, index) => {
    const seconds = toNumber(minus(to, start));
    const fade = Math.min(FADE_SECONDS, seconds / 2);
    const samples = Math.round(toNumber(inRead(start, from)) * audio.sampleRate);
    const chain = [
      `aresample=${audio.sampleRate}`,
      `aformat=channel_layouts=${LAYOUTS[audio.channels] ?? `${audio.channels}c`}`,
      `atrim=end=${seconds.toFixed(6)}`,
      'asetpts=PTS-STARTPTS',
      `afade=t=in:d=${fade}`,
      `afade=t=out:st=${(seconds - fade).toFixed(6)}:d=${fade}`,
      `adelay=${samples}S:all=1`,
    ];
    return { path: sounds.get(sound) ?? '', filters: `[${index + 1}:a:0]${chain.join(',')}[other${index}]` };
  });
  const mix =
    swaps.length > 0
      ? [
          `[heard]${swaps.map((_, n) => `[other${n}]`).join('')}amix=inputs=${swaps.length + 1}:duration=first:normalize=0`,
        ]
      : ['[heard]anull'];
  const join = without.length > 0 ? `,${joined(partsRead(recipe, facts), 'sound', ZERO)}` : '';
  const following = after.length > 0 ? `,${after.join(',')}` : '';
  return {
    inputs: others.flatMap(({ path }) => [...FROM_OUTSIDE, '-i', path]),
    filters: [heard, ...others.map(({ filters }) => filters), `${mix}${join}${following}[said]`].join(';'),
    out: 'said',
  };
}

import type { CutFacts } from '../delivery';
import { toNumber } from '../time';
import { lengthOfRecipe, type PictureRecipe, type Recipe } from './recipe';
import { type Range, scaled, sizeOfRecipe } from './size-of-recipe';

/** How a file that was made before went: for learning from. */
export interface MadeBefore {
  /** As `encoderOf` names it. */
  encoder: string;
  /** Millions of pixels, over all passes. */
  megapixels: number;
  seconds: number;
  /** Bytes that were expected, and that came. */
  expected: number;
  size: number;
}

/** Millions of pixels a second that a core encodes before anything is known of it: ours, measured on one machine. */
const UNKNOWN_SPEED: Record<string, number> = { h264: 30, hevc: 7, vp9: 4 };

/** What kind of encoding a recipe asks for: kinds differ in speed and in how near they come to a size. */
export function encoderOf({ picture }: Recipe): string {
  if (picture === 'copy') return 'copy';
  const { codec, control, hardware } = picture;
  return [
    codec,
    control.way,
    ...(control.way === 'variable' ? [control.passes] : []),
    ...(hardware ? ['hardware'] : []),
  ].join(' ');
}

const passesOf = ({ control }: PictureRecipe) => (control.way === 'variable' ? control.passes : 1);

/** Millions of pixels that are encoded for a recipe, over all passes. */
export function megapixelsOf(recipe: Recipe, facts: CutFacts): number {
  const { picture } = recipe;
  if (picture === 'copy') return 0;
  const frames = toNumber(lengthOfRecipe(recipe, facts)) * toNumber(picture.rate ?? facts.video.rate);
  return (picture.width * picture.height * frames * passesOf(picture)) / 1e6;
}

/** What a run of the encoder takes before its first picture: ours, measured on one machine. */
const START_SECONDS = 0.7;

const middle = (values: readonly number[]): number | undefined =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** What a file is expected to weigh, and how long it takes to make it and to send it. */
export interface Expected {
  /** Bytes. */
  size: Range;
  /** Seconds. */
  making: Range;
  /** Seconds; undefined where nothing is known of the line. */
  sending: Range | undefined;
}

/**
 * What to expect of a recipe before it is made.
 * @param before files that this machine made, the newest first
 * @param cores of this machine
 * @param bytesPerSecond of the line to the channel
 */
export function expectedOf(
  recipe: Recipe | undefined,
  facts: CutFacts,
  {
    before = [],
    cores = 2,
    bytesPerSecond,
  }: { before?: readonly MadeBefore[]; cores?: number; bytesPerSecond?: number },
): Expected {
  const size = recipe
    ? learnedSize(recipe, facts, before)
    : { least: facts.size, likely: facts.size, most: facts.size };
  const sending = bytesPerSecond
    ? scaled({ least: size.least * 0.85, likely: size.likely, most: size.most * 1.3 }, 1 / bytesPerSecond)
    : undefined;
  return { size, making: recipe ? making(recipe, facts, before, cores) : { least: 0, likely: 0, most: 0 }, sending };
}

function learnedSize(recipe: Recipe, facts: CutFacts, before: readonly MadeBefore[]): Range {
  const size = sizeOfRecipe(recipe, facts);
  const alike = before.filter(({ encoder, expected }) => encoder === encoderOf(recipe) && expected > 0);
  const ratio = middle(alike.slice(0, 20).map(({ size: came, expected }) => came / expected));
  if (ratio === undefined) return size;
  const likely = Math.min(size.most, size.likely * ratio);
  return { ...size, least: Math.min(size.least, likely * 0.8), likely: Math.round(likely) };
}

function making(recipe: Recipe, facts: CutFacts, before: readonly MadeBefore[], cores: number): Range {
  const megapixels = megapixelsOf(recipe, facts);
  const length = toNumber(lengthOfRecipe(recipe, facts));
  if (recipe.picture === 'copy') {
    const seconds = Math.max(0.5, facts.size / 150e6 + (recipe.sound === 'copy' ? 0 : length / 40));
    return { least: seconds * 0.3, likely: seconds, most: seconds * 4 };
  }
  const alike = before.filter(({ encoder, seconds }) => encoder === encoderOf(recipe) && seconds > 0);
  const start = START_SECONDS * passesOf(recipe.picture);
  const speed = middle(
    alike.slice(0, 20).map(({ megapixels: done, seconds }) => done / Math.max(0.1, seconds - start)),
  );
  if (speed === undefined) {
    const seconds = start + megapixels / ((UNKNOWN_SPEED[recipe.picture.codec] ?? 10) * cores);
    // Of a quality nobody knows how many bits it takes, and more of them take longer.
    const most = recipe.picture.control.way === 'quality' ? 8 : 3;
    return { least: seconds / 3, likely: seconds, most: seconds * most };
  }
  const seconds = start + megapixels / speed;
  return { least: seconds * 0.7, likely: seconds, most: seconds * 1.6 };
}

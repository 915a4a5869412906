import type { CutFacts, CutSpan, Size } from '../delivery';
import type { PathPoint } from '../framing';
import { type Fraction, toNumber } from '../time';
import { lengthWith, type SoundSwap } from './remedies';
import type { Container, PictureCodec, SoundCodec } from './settings';

/** How the bits of a picture are shared out; rates in kilobits a second. Two passes meet a size more exactly. */
export type RecipeControl =
  | {
      way: 'variable';
      kilobits: number;
      ceiling: number;
      passes: 1 | 2 /** Bytes that the file has at most. */;
      within?: number;
    }
  | { way: 'quality'; quality: number; ceiling: number };

export interface PictureRecipe extends Size {
  codec: PictureCodec;
  /** A frame of the picture's size that moves over all of it, which is brought to `full` for that. */
  framed?: { full: Size; path: PathPoint[] };
  /** Frames a second, where it is not the file's own. */
  rate?: Fraction;
  control: RecipeControl;
  /** By graphics hardware where that works. */
  hardware?: true;
  /** Both fields become whole frames. */
  deinterlace?: true;
  /** HDR becomes standard range. */
  standardRange?: true;
}

export interface SoundRecipe {
  codec: SoundCodec;
  kilobits: number;
  sampleRate: number;
  /** LUFS. */
  loudness?: number;
}

/** How a file is made of a cut, down to the last choice: the same recipe makes the same file. */
export interface Recipe {
  container: Container;
  picture: 'copy' | PictureRecipe;
  sound: 'copy' | 'none' | SoundRecipe;
  /** Exact seconds of the cut. */
  from?: Fraction;
  to?: Fraction;
  /** Parts of the cut that are left out between; the rest follows on. */
  without?: CutSpan[];
  /** Where nothing is heard of the cut's own sound. */
  silence?: CutSpan[];
  swaps?: SoundSwap[];
  sphere?: true;
}

/** What making a file takes: nothing, copying into another container, the sound anew, or the picture, too. */
export const WORKS = ['as it is', 'container', 'sound', 'encode'] as const;
export type Work = (typeof WORKS)[number];

export function workOf(recipe: Recipe | undefined): Work {
  if (!recipe) return 'as it is';
  if (recipe.picture !== 'copy') return 'encode';
  return typeof recipe.sound === 'object' ? 'sound' : 'container';
}

/** A recipe as one text, the same for the same recipe. */
export function recipeText(recipe: Recipe): string {
  const sorted = (value: unknown): unknown => {
    if (Array.isArray(value) || typeof value !== 'object' || value === null) return value;
    const entries = Object.entries(value).filter(([, each]) => each !== undefined);
    return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, each]) => [key, sorted(each)]));
  };
  return JSON.stringify(sorted(recipe));
}

/** How long the file of a recipe is, in exact seconds. */
export function lengthOfRecipe(recipe: Pick<Recipe, 'from' | 'to' | 'without'>, facts: CutFacts): Fraction {
  return lengthWith(recipe, facts);
}

/** Bits a second of a cut's picture: as it says, or what the whole file leaves for it. */
export function pictureBits({ video, bitRate, size, duration, audio }: CutFacts): number {
  if (video.bitRate) return video.bitRate;
  const all = bitRate ?? (size * 8) / Math.max(0.001, toNumber(duration));
  return Math.max(0, all - (audio?.bitRate ?? 0));
}

/** What the file of a recipe will be, as far as sites ask. @param size its bytes, as expected */
export function factsOfRecipe(recipe: Recipe, facts: CutFacts, size: number): CutFacts {
  const { picture, sound } = recipe;
  const video =
    picture === 'copy'
      ? facts.video
      : {
          ...facts.video,
          codec: picture.codec,
          width: picture.width,
          height: picture.height,
          rate: picture.rate ?? facts.video.rate,
          pixelFormat: 'yuv420p',
          ...(facts.video.more ? { more: { ...facts.video.more, bits: 8, interlaced: false, turned: 0 } } : {}),
        };
  const audio =
    sound === 'none' || !facts.audio
      ? undefined
      : sound === 'copy'
        ? facts.audio
        : { ...facts.audio, codec: sound.codec, sampleRate: sound.sampleRate };
  return { ...facts, container: recipe.container, duration: lengthOfRecipe(recipe, facts), size, video, audio };
}

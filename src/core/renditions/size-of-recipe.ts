import type { CutFacts } from '../delivery';
import { toNumber } from '../time';
import { goodKilobits } from './rates';
import { lengthOfRecipe, type PictureRecipe, pictureBits, type Recipe } from './recipe';

/** A figure that is expected, and between what it will probably lie. */
export interface Range {
  least: number;
  likely: number;
  most: number;
}

export const scaled = ({ least, likely, most }: Range, by: number): Range => ({
  least: least * by,
  likely: likely * by,
  most: most * by,
});

/** Kilobits a second of a picture that is encoded. */
function pictureKilobits({ control, width, height, codec }: PictureRecipe, rate: number): Range {
  if (control.way === 'variable') {
    const { kilobits, passes } = control;
    // One pass may come out lower where little moves; two passes meet it.
    return passes === 2
      ? { least: kilobits * 0.9, likely: kilobits, most: kilobits * 1.03 }
      : { least: kilobits * 0.35, likely: kilobits * 0.9, most: kilobits * 1.08 };
  }
  // By quality it depends on the picture: x264 halves about every six steps (from memory, no source). Only the ceiling is sure.
  const likely = Math.min(
    control.ceiling,
    goodKilobits(width, height, rate, codec) * 2 ** ((20 - control.quality) / 6) * 0.45,
  );
  return { least: likely * 0.1, likely, most: control.ceiling };
}

/**
 * How many bytes the file of a recipe will probably have.
 * @param facts of the cut
 */
export function sizeOfRecipe(recipe: Recipe, facts: CutFacts): Range {
  const seconds = toNumber(lengthOfRecipe(recipe, facts));
  const { picture, sound } = recipe;
  const copied = pictureBits(facts) / 1000;
  const rate = picture !== 'copy' && picture.rate ? picture.rate : facts.video.rate;
  const bits =
    picture === 'copy'
      ? { least: copied * 0.97, likely: copied, most: copied * 1.03 }
      : pictureKilobits(picture, toNumber(rate));
  const heard = sound === 'none' ? 0 : sound === 'copy' ? (facts.audio?.bitRate ?? 0) / 1000 : sound.kilobits;
  const whole = (kilobits: number) => Math.round(((kilobits + heard) * 1000 * seconds) / 8);
  return { least: whole(bits.least), likely: whole(bits.likely), most: whole(bits.most * 1.005) };
}

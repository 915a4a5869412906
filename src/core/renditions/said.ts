import { type CutSpan, codecName, containerName } from '../delivery';
import { SHAPE_NAMES } from '../framing';
import { type Rate, rate, rateName, toNumber } from '../time';
import type { Recipe } from './recipe';
import type { Remedies } from './remedies';
import type { EncodeSettings, RateControl, SoundSettings } from './settings';

/** A rate of bits as people write it: 2 Mbit/s, 800 kbit/s. */
export function bitsName(kilobits: number): string {
  if (kilobits < 1000) return `${Math.round(kilobits)} kbit/s`;
  return `${Math.round(kilobits / 100) / 10} Mbit/s`;
}

const lufsName = (lufs: number) => `${String(lufs).replace('-', '−')} LUFS`;
const rateWords = (exact: Rate) => `${rateName(exact)} fps`;

/** What the file of a recipe is, in a line. */
export function recipeWords(recipe: Recipe | undefined): string {
  if (!recipe) return 'the file as it is';
  const { picture, sound, container } = recipe;
  const parts = [containerName(container)];
  if (picture === 'copy') parts.push('picture not touched');
  else {
    const { codec, width, height, control } = picture;
    parts.push(`${codecName(codec)} ${width}×${height}`);
    if (picture.rate) parts.push(rateWords(rate(picture.rate.num, picture.rate.den)));
    parts.push(control.way === 'variable' ? bitsName(control.kilobits) : `quality ${control.quality}`);
    if (control.way === 'variable' && control.passes === 2) parts.push('in two passes');
  }
  if (sound === 'copy') parts.push('sound not touched');
  if (typeof sound === 'object') {
    const loud = sound.loudness === undefined ? '' : ` at ${lufsName(sound.loudness)}`;
    parts.push(`sound ${codecName(sound.codec)}${loud}`);
  }
  return parts.join(', ');
}

const controlWords = (control: RateControl): string => {
  if (control.way === 'by size') return 'as many bits as its size wants';
  if (control.way === 'quality') return `quality ${control.quality}`;
  return `${bitsName(control.kilobits)}, at most ${bitsName(control.ceiling)}`;
};

const soundWords = ({ codec, kilobits, sampleRate, loudness }: SoundSettings): string =>
  [
    `sound ${codecName(codec)} ${kilobits} kbit/s`,
    ...(sampleRate ? [`${sampleRate / 1000} kHz`] : []),
    ...(loudness === null ? [] : [lufsName(loudness)]),
  ].join(' ');

/** What settings ask for, in a line. */
export function settingsWords({
  container,
  codec,
  shape,
  size,
  rate: frames,
  control,
  hardware,
  sound,
}: EncodeSettings): string {
  const lines = size.way === 'keep' ? 'its own size' : `${size.way} ${size.lines} lines`;
  const rated = frames ? [rateWords(rate(frames.num, frames.den))] : [];
  return [
    `${containerName(container)}, ${codecName(codec)}`,
    ...(shape ? [SHAPE_NAMES[shape]] : []),
    lines,
    ...rated,
    controlWords(control),
    ...(hardware ? ['by graphics hardware'] : []),
    soundWords(sound),
  ].join(' · ');
}

const spanWords = ({ from, to }: CutSpan) => `${toNumber(from).toFixed(2)}–${toNumber(to).toFixed(2)} s`;

/** What is put right in a file, each in a few words. */
export function remedyWords(remedies: Remedies): string[] {
  const { from, to, loudness, indexFirst, sphere, convert, silence, swaps, without } = remedies;
  const spans = (says: string, all: readonly CutSpan[] = []) => all.map((span) => `${says} ${spanWords(span)}`);
  return [
    ...spans('silent', silence),
    ...spans('other sound', swaps),
    ...spans('without', without),
    ...(from ? [`starts at ${toNumber(from).toFixed(2)} s`] : []),
    ...(to ? [`ends at ${toNumber(to).toFixed(2)} s`] : []),
    ...(loudness === undefined ? [] : [`sound at ${lufsName(loudness)}`]),
    ...(indexFirst ? ['index first'] : []),
    ...(sphere ? ['marked as a 360° video'] : []),
    ...(convert ? ['picture converted'] : []),
  ];
}

/** From so far around on, nothing of the sound is as it was, as people would say it. */
const THROUGHOUT_MILLISECONDS = 3000;

/**
 * What is said of the sound outside the parts of a file that are silent, or have other sound.
 * @param milliseconds how far around them it is new; undefined where that is not known, or there are no such parts
 */
export function soundAroundWords(milliseconds: number | undefined): string {
  if (milliseconds === undefined) return '';
  if (milliseconds === 0) return 'All other sound is as it was.';
  if (milliseconds >= THROUGHOUT_MILLISECONDS) return 'The rest of the sound was encoded once more, too.';
  const seconds = (Math.ceil(milliseconds / 10) / 100).toFixed(2);
  return `All other sound is as it was, but for up to ${seconds} s around.`;
}

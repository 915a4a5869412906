import { number, object, string } from 'yup';
import type { Problem, ProblemShape } from '../shared/problem';
import type { FileShape } from '../shared/transcode';

const MIB = 1024 ** 2;
const LONGEST_SECONDS = 120;
const MOST_GRAPHEMES = 240;

const graphemes = (text: string) => [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)].length;

export const newPostShape = object({
  ref: string().min(1).max(120).required(),
  clip: object({
    name: string()
      .matches(/\.mp4$/i, 'a clip has to be an MP4 file')
      .max(300)
      .required(),
    bytes: number()
      .integer()
      .min(1)
      .max(256 * MIB)
      .required(),
  }).required(),
}).noUnknown();

export const wordsShape = object({
  words: string()
    .defined()
    .test('length', `words has at most ${MOST_GRAPHEMES} signs`, (text) => graphemes(text ?? '') <= MOST_GRAPHEMES),
  moment: number().min(0).max(LONGEST_SECONDS),
}).noUnknown();

/** Looks at a clip once it is here. @throws Error with what is wrong with it */
export function inspectClip({ codec, container, seconds }: FileShape): void {
  if (!container.includes('mp4') || codec !== 'h264') throw new Error('a clip has to be MP4 with H.264');
  if (Math.floor(seconds) > LONGEST_SECONDS) throw new Error(`a clip lasts at most ${LONGEST_SECONDS} s`);
}

/** Pipwire's own errors: short, with a word for the program and one for people. */
export const pipErrors: ProblemShape = ({ title, detail, more }: Problem) => ({
  type: 'application/json',
  body: { pip: 'no', code: title.toLowerCase().replace(/\W+/g, '_'), why: detail, ...more },
});

/** The first byte, the last and the size in a Content-Range field (RFC 9110, section 14.4); undefined where it is none. */
export function contentRange(field: string | undefined): { first: number; last: number; size: number } | undefined {
  const match = /^bytes (\d+)-(\d+)\/(\d+)$/.exec(field ?? '');
  if (!match) return undefined;
  const [first, last, size] = match.slice(1).map(Number) as [number, number, number];
  return first <= last && last < size ? { first, last, size } : undefined;
}

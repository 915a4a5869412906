import { array, number, object, string } from 'yup';
import type { FoldRule } from '../shared/folded';
import { Problem, type ProblemShape } from '../shared/problem';
import type { FileShape } from '../shared/transcode';
import { CATALOGUE } from './people';

/** At first two lines, and of those 120 bytes. */
export const FOLD: FoldRule = { lines: 2, most: 120, sizeOf: (sign) => Buffer.byteLength(sign) };

const bytes = (text: string | undefined) => Buffer.byteLength(text ?? '');
const LARGEST = 4_000_000_000;

export const newClipShape = object({
  ref: string().min(1).max(120).required(),
  file: string()
    .matches(/\.(mp4|mov)$/i, 'a clip has to be an MP4 or MOV file')
    .max(300)
    .required(),
  bytes: number().integer().min(1).max(LARGEST).required(),
}).noUnknown();

export const listingShape = object({
  title: string()
    .trim()
    .min(1)
    .test('length', 'title has at most 75 bytes', (text) => bytes(text) <= 75),
  text: string()
    .test('length', 'text has at most 900 bytes', (text) => bytes(text) <= 900)
    .test('links', 'text may not have links', (text) => !/(https?:\/\/|www\.)/i.test(text ?? '')),
  products: array(string().required()).max(8),
}).noUnknown();

/** Refuses products that the catalogue does not have. */
export function checkProducts(products: readonly string[] | undefined): void {
  const unknown = products?.find((number) => !Object.hasOwn(CATALOGUE, number.replace(/[\s-]/g, '')));
  if (unknown)
    throw new Problem(422, 'Unknown product', `There is no product ${unknown} in the catalogue`, { field: 'products' });
}

/** Looks at a clip once it is here. @throws Error with what is wrong with it */
export function inspectClip({ width, height, codec, bits }: FileShape): void {
  if (codec !== 'h264') throw new Error('a clip has to be H.264');
  if (bits > 8) throw new Error('a clip has 8 bits a sample');
  if (width > 1920 || height > 1080) throw new Error('a clip has at most 1920×1080');
}

/** Checks a picture: 16:9, from 800 wide, at most 2 MB. */
export function checkPicture(found: { format?: string; width?: number; height?: number }, size: number): void {
  const { format = '', width = 0, height = 0 } = found;
  const refuse = (detail: string) => {
    throw new Problem(422, 'Picture not taken', detail, { field: 'picture' });
  };
  if (!['jpeg', 'png'].includes(format)) refuse('Only JPEG and PNG are taken');
  if (size > 2_000_000) refuse('A picture has at most 2000000 bytes');
  if (width < 800) refuse('A picture has to be at least 800 pixels wide');
  if (Math.abs(width * 9 - height * 16) > 16) refuse('It has to be 16:9');
}

/** Stallmarket's own errors: a list, each with what it is about. */
export const stallErrors: ProblemShape = ({ title, detail, more }: Problem) => ({
  type: 'application/json',
  body: {
    ok: false,
    errors: [{ code: title.toUpperCase().replace(/\W+/g, '-'), message: detail, on: more.field ?? null }],
  },
});

import { array, number, object, string } from 'yup';
import type { FoldRule } from '../shared/folded';
import { Problem } from '../shared/problem';

/** At first five lines, and of those 280 code points. */
export const FOLD: FoldRule = { lines: 5, most: 280, sizeOf: (sign) => [...sign].length };

const GIB = 1024 ** 3;
const points = (text: string | undefined) => [...(text ?? '')].length;

export const newWorkShape = object({
  fileName: string().trim().min(1).max(300).required(),
  bytes: number()
    .integer()
    .min(1)
    .max(20 * GIB)
    .required(),
}).noUnknown();

export const workShape = object({
  headline: string()
    .trim()
    .min(1)
    .test('length', 'headline has at most 110 code points', (text) => points(text) <= 110),
  about: string().test('length', 'about has at most 6000 code points', (text) => points(text) <= 6000),
  keywords: array(
    string()
      .required()
      .test('length', 'a keyword has at most 30 code points', (text) => points(text) <= 30),
  ).max(20),
  audience: string().oneOf(['public', 'address', 'password', 'me'] as const),
  password: string().min(1).max(100),
  credits: array(
    object({ role: string().trim().max(60).required(), name: string().trim().max(80).required() }).noUnknown(),
  ).max(50),
}).noUnknown();

export const swapShape = object({ from: string().max(100).required() }).noUnknown();

export const completeShape = object({
  parts: array(object({ number: number().integer().min(1).required(), digest: string().required() }).noUnknown())
    .min(1)
    .required(),
}).noUnknown();

const COVER_BYTES = 8_000_000;

/** Checks a cover: JPEG or PNG of the work's own shape, at most 8 MB. */
export function checkCover(shape: { width: number; height: number } | undefined) {
  return (found: { format?: string; width?: number; height?: number }, bytes: number): void => {
    const { format = '', width = 0, height = 0 } = found;
    const refuse = (detail: string) => {
      throw new Problem(422, 'Cover not taken', detail, { field: 'cover' });
    };
    if (!['jpeg', 'png'].includes(format)) refuse('Only JPEG and PNG are taken');
    if (bytes > COVER_BYTES) refuse(`At most ${COVER_BYTES} bytes are taken`);
    if (shape && Math.abs(width * shape.height - height * shape.width) > Math.max(shape.width, shape.height)) {
      refuse(`It has to have the shape of the work, ${shape.width}×${shape.height}`);
    }
  };
}

const CUE = /^(?:(\d{2,}):)?([0-5]\d):([0-5]\d)\.(\d{3})\s+-->\s+\S+.*\n(.+)$/gm;

/** The chapters in a WebVTT chapter file, as the player shows them. */
export function chaptersInFile(text: string | undefined): { seconds: number; title: string }[] {
  const plain = (words: string) =>
    words
      .replace(/<[^>]*>/g, '')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&amp;/g, '&')
      .trim();
  return [...(text ?? '').matchAll(CUE)].map(([, hours = '0', minutes, seconds, thousandths, title = '']) => ({
    seconds: Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds) + Number(thousandths) / 1000,
    title: plain(title),
  }));
}

/**
 * The SHA-256 of a Content-Digest field, in base64 (RFC 9530, section 2: a dictionary of algorithms, each with a byte
 * sequence between colons). @returns undefined where it has none
 */
export function sha256InField(field: string | undefined): string | undefined {
  return /(?:^|,)\s*sha-256=:([A-Za-z0-9+/]+=*):/.exec(field ?? '')?.[1];
}

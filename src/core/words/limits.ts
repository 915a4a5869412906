import { graphemes } from './graphemes';

/** How a site counts the length of a text. */
export type TextUnit = 'utf16' | 'codePoint' | 'grapheme' | 'utf8';

/** A limit in a site's own way of counting. */
export interface TextLimit {
  most: number;
  unit: TextUnit;
}

const UNIT_NAMES: Record<TextUnit, string> = {
  utf16: 'characters',
  codePoint: 'characters',
  grapheme: 'characters',
  utf8: 'bytes',
};

/** The length of a text as a site counts it. Graphemes are those of UAX #29. */
export function textLength(text: string, unit: TextUnit): number {
  switch (unit) {
    case 'utf16':
      return text.length;
    case 'codePoint':
      return [...text].length;
    case 'grapheme':
      return [...graphemes(text)].length;
    case 'utf8':
      return new TextEncoder().encode(text).length;
  }
}

/** Whether a text is within a limit, by the site's own count; of a text far over it no more is counted than has to be. */
export function isWithin(text: string, { unit, most }: TextLimit): boolean {
  if (unit !== 'grapheme') return textLength(text, unit) <= most;
  let count = 0;
  for (const _ of graphemes(text)) {
    count += 1;
    if (count > most) return false;
  }
  return true;
}

/**
 * "12 characters over the 90 that Lanternfold takes", or undefined where the text fits.
 * @param site its name, for what is said
 */
export function overLimit(text: string, limit: TextLimit, site: string): string | undefined {
  const length = textLength(text, limit.unit);
  if (length <= limit.most) return undefined;
  return `${length - limit.most} ${UNIT_NAMES[limit.unit]} over the ${limit.most} that ${site} takes`;
}

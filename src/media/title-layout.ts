import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import opentype, { type Font, type Glyph } from 'opentype.js';
import sharp from 'sharp';

/** Where the band of a title stands over a picture: across the foot of it, or down its left side. */
export type Band = 'below' | 'beside';

const BAND_COLOUR = '#123a5a';
const TITLE_COLOUR = '#fffaf0';
/** Of the picture's height: the largest and the smallest height of the letters, tried from the largest down. */
const [LARGEST, SMALLEST] = [0.15, 0.05];
const LINE_HEIGHT = 1.08;

let font: Promise<Font> | undefined;

/** The display face that ships with the application, as outlines: what is drawn looks alike on every machine. */
function displayFont(): Promise<Font> {
  font ??= (async () => {
    const css = createRequire(path.join(process.cwd(), 'package.json')).resolve(
      '@fontsource/bricolage-grotesque/package.json',
    );
    const file = await readFile(path.join(path.dirname(css), 'files/bricolage-grotesque-latin-700-normal.woff'));
    return opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength));
  })();
  return font;
}

/** Signs that the face has no outline for, such as emoji, are not drawn; undefined where letters or digits are among them. */
export function drawable(title: string, face: Font): string | undefined {
  const has = (sign: string) => /\s/.test(sign) || face.charToGlyph(sign).index > 0;
  if ([...title].some((sign) => /[\p{L}\p{N}]/u.test(sign) && !has(sign))) return undefined;
  return [...title].filter(has).join('').replace(/\s+/g, ' ').trim();
}

/** A line's glyphs, each with where it starts; `end` is the line's width. In pixels. */
function setLine(line: string, face: Font, size: number) {
  const glyphs = [...line].map((sign) => face.charToGlyph(sign));
  const scale = size / face.unitsPerEm;
  let end = 0;
  const placed = glyphs.map((glyph, index) => {
    const x = end;
    const next = glyphs[index + 1];
    end += ((glyph.advanceWidth ?? 0) + (next ? face.getKerningValue(glyph, next) : 0)) * scale;
    return { glyph, x };
  });
  return { placed, end };
}

/** Lines that are no wider than `width` pixels, or undefined where a single word is. */
function linesOf(text: string, face: Font, size: number, width: number): string[] | undefined {
  const fits = (line: string) => setLine(line, face, size).end <= width;
  const lines: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    if (!fits(word)) return undefined;
    const longer = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (lines.length > 0 && fits(longer)) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/** A glyph's outline as SVG takes it; the package's own writing of it loses pieces of outlines. */
function pathData(glyph: Glyph, x: number, y: number, size: number): string {
  return glyph
    .getPath(x, y, size)
    .commands.map(({ type, ...points }) => {
      const {
        x1,
        y1,
        x2,
        y2,
        x: toX,
        y: toY,
      } = points as Partial<Record<'x1' | 'y1' | 'x2' | 'y2' | 'x' | 'y', number>>;
      const numbers = [x1, y1, x2, y2, toX, toY].filter((number) => number !== undefined);
      return `${type}${numbers.map((number) => number.toFixed(2)).join(' ')}`;
    })
    .join('');
}

/**
 * The largest letters with which a title fits a box; undefined where it does not fit even in the smallest.
 * @param box in pixels
 * @param sizes of the letters, in pixels
 */
export function titleInBox(
  title: string,
  face: Font,
  box: { width: number; height: number },
  sizes: { largest: number; smallest: number },
): { size: number; lines: string[] } | undefined {
  for (let size = sizes.largest; size >= sizes.smallest; size -= 2) {
    const lines = linesOf(title, face, size, box.width);
    if (lines && lines.length * size * LINE_HEIGHT <= box.height) return { size, lines };
  }
  return undefined;
}

/**
 * Draws a title on a band over a picture, in a JPEG of the same size. Of a title that does not fit in the smallest letters,
 * or has letters that the face lacks, nothing is drawn: the picture stays as it is.
 * @param from a picture file of any kind that sharp reads
 */
export async function drawTitle(from: string, to: string, title: string, band: Band): Promise<void> {
  const { width = 0, height = 0 } = await sharp(from).metadata();
  const face = await displayFont();
  const margin = Math.round(height * 0.05);
  const deep = { width: Math.round(width * 0.42), height: Math.round(height * 0.36) };
  const area =
    band === 'beside'
      ? { x: 0, y: 0, width: deep.width, height }
      : { x: 0, y: height - deep.height, width, height: deep.height };
  const box = { width: area.width - 2 * margin, height: area.height - 2 * margin };
  const sizes = { largest: Math.round(height * LARGEST), smallest: Math.round(height * SMALLEST) };
  const fitted = titleInBox(drawable(title, face) ?? '', face, box, sizes);
  const picture = sharp(from);
  if (fitted && fitted.lines.length > 0) {
    const { size, lines } = fitted;
    const tall = lines.length * size * LINE_HEIGHT;
    const top = area.y + margin + (box.height - tall) / 2;
    const paths = lines.flatMap((line, index) => {
      const y = top + size * (0.82 + index * LINE_HEIGHT);
      const { placed } = setLine(line, face, size);
      return placed.map(({ glyph, x }) => pathData(glyph, area.x + margin + x, y, size));
    });
    const svg = [
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">`,
      `<rect x="${area.x}" y="${area.y}" width="${area.width}" height="${area.height}" fill="${BAND_COLOUR}" fill-opacity="0.92"/>`,
      ...paths.map((data) => `<path d="${data}" fill="${TITLE_COLOUR}"/>`),
      '</svg>',
    ].join('');
    picture.composite([{ input: Buffer.from(svg) }]);
  }
  await picture.jpeg({ quality: 90 }).toFile(to);
}

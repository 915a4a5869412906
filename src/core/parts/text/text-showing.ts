import type { ChapterLine } from '../../time';

/**
 * The text to write by hand that a site then shows as it does now: chapters that the record adds by itself are left out.
 * @param shows what a text becomes there
 */
export function textShowing(shown: string, chapters: readonly ChapterLine[], shows: (text: string) => string): string {
  const lines = new Set(chapters.map(({ stamp, title }) => `${stamp} ${title}`));
  const without = shown
    .split('\n')
    .filter((line) => !lines.has(line.trim()))
    .join('\n')
    .trim();
  return [shown, without].find((text) => shows(text) === shown) ?? shown;
}

import { type Fraction, floor } from './fraction';

/**
 * A time as viewers read it, down to the whole second it lies in: `4:05`, or `1:04:05`.
 * @param longest whole seconds of the longest time in the same list, so that all lines take the same form
 */
export function viewerTime(time: Fraction, longest: number): string {
  const seconds = Math.max(0, floor(time));
  const two = (value: number) => String(value).padStart(2, '0');
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return longest >= 3600 ? `${h}:${two(m)}:${two(s)}` : `${h * 60 + m}:${two(s)}`;
}

/** A line of a list of chapters, as viewers get it. */
export interface ChapterLine {
  stamp: string;
  title: string;
}

/** The lines as they stand in a description. */
export function chapterText(lines: readonly ChapterLine[]): string {
  return lines.map((line) => `${line.stamp} ${line.title}`.trimEnd()).join('\n');
}

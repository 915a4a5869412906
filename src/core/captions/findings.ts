import { textLength } from '../words';
import type { Caption, CaptionFinding } from './caption';

/** Characters a second that people can follow (common practice, no source). */
export const FASTEST_READING = 25;

/** What about captions viewers would stumble over: order, overlap, no words, reading speed, beyond the end. */
export function captionFindings(
  captions: readonly Caption[],
  /** Whole milliseconds, where the cut's length is known. */
  duration: number | undefined,
): CaptionFinding[] {
  const findings: CaptionFinding[] = [];
  captions.forEach(({ from, to, lines }, index) => {
    const find = (what: string) => findings.push({ index, what });
    const before = captions[index - 1];
    const letters = textLength(lines.join(' '), 'grapheme');
    if (before && from < before.from) find('starts before the one above it');
    else if (before && from < before.to)
      find(`starts ${((before.to - from) / 1000).toFixed(1)} s before the last one ends`);
    if (to <= from) find('takes no time');
    if (letters === 0) find('has no words');
    const speed = to > from ? (letters * 1000) / (to - from) : 0;
    if (speed > FASTEST_READING)
      find(`asks for ${Math.round(speed)} characters a second; ${FASTEST_READING} can be read`);
    if (duration !== undefined && from >= duration) find('starts after the end of the video');
  });
  return findings;
}

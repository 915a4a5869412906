import type { Fold } from '../delivery';
import { graphemes, textLength } from '../words';

/** The start of a text that stands before the fold; nothing is cut inside a grapheme (UAX #29). */
export function beforeFold(text: string, fold: Fold): string {
  const lines = text.split('\n').slice(0, fold.lines).join('\n');
  if (textLength(lines, fold.unit) <= fold.most) return lines;
  let [kept, length] = ['', 0];
  for (const segment of graphemes(lines)) {
    length += textLength(segment, fold.unit);
    if (length > fold.most) break;
    kept += segment;
  }
  return kept;
}

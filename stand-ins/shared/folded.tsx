import type { ReactNode } from 'react';

/** What a site shows of a text at first: so many lines, and of those so much by its own count of a sign. */
export interface FoldRule {
  lines: number;
  most: number;
  sizeOf: (sign: string) => number;
}

/** Where a text is folded; its whole length where it is not. Signs are graphemes, so that none is shown in part. */
export function foldAt(text: string, { lines, most, sizeOf }: FoldRule): number {
  let [at, size, ends] = [0, 0, 0];
  for (const { segment } of new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)) {
    if (segment === '\n') ends += 1;
    size += sizeOf(segment);
    if (ends === lines || size > most) return at;
    at += segment.length;
  }
  return at;
}

interface FoldedProps {
  text: string;
  rule: FoldRule;
  className: string;
  show?: (part: string) => ReactNode;
}

/** A text with what is beyond the fold behind a word to press. */
export function Folded({ text, rule, className, show = (part) => part }: FoldedProps) {
  const at = foldAt(text, rule);
  return (
    <div className={className}>
      <span data-part="first">{show(text.slice(0, at))}</span>
      {at < text.length && (
        <details data-part="rest">
          <summary>Show all of it</summary>
          {show(text.slice(at).replace(/^\n/, ''))}
        </details>
      )}
    </div>
  );
}

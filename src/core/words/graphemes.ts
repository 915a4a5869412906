const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });
const WINDOW = 200;

/** What may be segmented at once from a place: about so many code units, with no surrogate pair cut. */
function windowAt(text: string, start: number, length: number): string {
  const end = start + length;
  const high = text.charCodeAt(end - 1);
  return text.slice(start, high >= 0xd800 && high <= 0xdbff ? end + 1 : end);
}

/**
 * The graphemes of a text in order, those of UAX #29. The segmenter that engines have takes the square of a text's length,
 * so it is given a little at a time, each from a boundary on: what stands before one has no say in what follows.
 */
export function* graphemes(text: string): Generator<string> {
  let [start, length] = [0, WINDOW];
  while (start < text.length) {
    const part = windowAt(text, start, length);
    const found = Array.from(segmenter.segment(part), ({ segment }) => segment);
    // The last one may go on behind the window.
    const whole = start + part.length < text.length ? found.slice(0, -1) : found;
    yield* whole;
    const passed = whole.reduce((sum, each) => sum + each.length, 0);
    length = passed === 0 ? length * 2 : WINDOW;
    start += passed;
  }
}

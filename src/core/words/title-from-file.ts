const VERSION = /^(?:v|ver|version|r|rev)\.?\d{1,3}(?:\.\d{1,3})?$/i;
const ENDING =
  /^(?:final|finals|master|export|exported|render|rendered|upload|web|edit|cut|copy|draft|approved|locked|lock|fix|fixed)\d*$/i;
const TECHNICAL = /^(?:\d{3,4}p\d{0,3}|[248]k|uhd|fhd|hd|h\.?26[45]|hevc|avc|prores|(?:\d{2,3})fps|\d{3,4}x\d{3,4})$/i;
const COUNTER = /^\(?\d{1,2}\)?$/;

/**
 * A title made from the name of a finished file: folders and extension dropped, separators turned to spaces, and the
 * words that an export leaves at the end ("FINAL", "v3", "1080p", "copy") taken off. At least one word stays.
 * "marrow_quay-plank-by-plank_ep07_FINAL-v3.mp4" becomes "Marrow Quay plank by plank ep07": a name part joined by
 * underscores that comes before a hyphenated part is a proper name and is capitalised word by word.
 */
export function titleFromFileName(fileName: string): string {
  const base = (fileName.split(/[\\/]/).pop() ?? '').replace(/(?<=.)\.[A-Za-z0-9]{2,5}$/, '');
  const words = dropEnding(
    leadingName(base)
      .split(/[\s_\-–—+]+|\.(?=\S)/)
      .filter(Boolean),
  );
  const title = words.join(' ').replace(/\s+/g, ' ').trim();
  return title === '' ? base.trim() : title.charAt(0).toLocaleUpperCase('en') + title.slice(1);
}

/** Capitalises the words before the first hyphen where underscores join them: `marrow_quay-…` names somebody. */
function leadingName(base: string): string {
  const match = /^([a-z]+(?:_[a-z]+)+)-(?=[^_]*-)/.exec(base);
  if (!match?.[1]) return base;
  const name = match[1].replace(/(^|_)([a-z])/g, (_, gap: string, letter: string) => gap + letter.toUpperCase());
  return name + base.slice(match[1].length);
}

function dropEnding(words: string[]): string[] {
  let end = words.length;
  while (end > 1) {
    const word = words[end - 1] ?? '';
    const isEnding = VERSION.test(word) || ENDING.test(word) || TECHNICAL.test(word);
    // A bare number is a counter only next to such a word ("final 2"); alone it may be the episode.
    const isCounter = COUNTER.test(word) && end > 2 && (ENDING.test(words[end - 2] ?? '') || /^\(/.test(word));
    if (!isEnding && !isCounter) break;
    end -= 1;
  }
  return words.slice(0, end);
}

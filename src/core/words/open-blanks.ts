/**
 * What people and templates write for a place that is still to be filled (common practice, no source): names in braces,
 * in two square or two angle brackets, in capitals between per cent signs, and “[insert …]”.
 */
const SIGNS = [
  /\{\{+[^{}\n]{0,80}\}{0,3}/,
  /\}\}+/,
  /\$?\{[\p{L}_][\p{L}\p{N}_ .\u002d]{0,40}\}/u,
  /\[\[[^[\]\n]{1,80}\]\]/,
  /<<\S(?:[^<>\n]{0,78}\S)?>>/,
  /%[A-Z][A-Z0-9_]{1,40}%/,
  /\[(?:[Ii]nsert|INSERT|[Tt]odo|TODO|TBD|[Yy]our)\b[^[\]\n]{0,80}\]/,
];

const BLANK = new RegExp(SIGNS.map(({ source }) => source).join('|'), 'gu');

/** Everything in a text that looks like a blank somebody forgot to fill, each once, as it stands there. */
export function openBlanksIn(text: string): string[] {
  return [...new Set(text.match(BLANK) ?? [])];
}

import { titleFromFileName } from '../words';

/** What a file's name tells by a series' pattern. */
export interface NameParts {
  /** As it stands in the name, without leading zeros; undefined where the pattern has no place for it. */
  episode: string | undefined;
  /** Made from the part that the pattern names, or else from the whole name. */
  title: string;
}

const HOLES = /\{episode\}|\{title\}|\*/g;

/** A piece of a pattern as an expression: letters in any case, and any run of spaces, points, hyphens and underscores alike. */
function literal(text: string): string {
  return text
    .split(/[\s._\-–—]+/)
    .map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`))
    .join(String.raw`[\s._\-–—]+`);
}

/**
 * Why a pattern cannot be used, in words. A pattern is the name as it is, with `{episode}` where the number stands,
 * `{title}` where the title stands and `*` for anything.
 */
export function patternFinding(pattern: string): string | undefined {
  const holes = pattern.match(/\{[^}]*\}?/g) ?? [];
  const strange = holes.find((hole) => hole !== '{episode}' && hole !== '{title}');
  if (strange) return `“${strange}” is none of {episode}, {title} and *`;
  if (new Set(holes).size < holes.length) return 'Each of {episode} and {title} may stand in it once';
  if (pattern.trim() !== '' && pattern.replace(HOLES, '').trim() === '') {
    return 'Give it something of the name itself, or it takes every file';
  }
  return undefined;
}

/** What a file's name tells by a pattern, or undefined where it does not fit. Endings such as .mp4 do not count. */
export function partsByPattern(fileName: string, pattern: string): NameParts | undefined {
  if (pattern.trim() === '' || patternFinding(pattern)) return undefined;
  const name = (fileName.split(/[\\/]/).pop() ?? '').replace(/(?<=.)\.[A-Za-z0-9]{2,5}$/, '');
  const holes = pattern.match(HOLES) ?? [];
  const ways: Record<string, string> = { '{episode}': String.raw`(?<episode>\d{1,6})`, '{title}': '(?<title>.+?)' };
  const body = pattern
    .trim()
    .split(HOLES)
    .map((text, index) => literal(text) + (holes[index] ? (ways[holes[index]] ?? '.*?') : ''))
    .join('');
  const groups =
    new RegExp(`^${body}$`, 'isu').exec(name)?.groups ?? (new RegExp(`^${body}$`, 'isu').test(name) ? {} : undefined);
  if (!groups) return undefined;
  return {
    episode: groups.episode?.replace(/^0+(?=\d)/, ''),
    title: titleFromFileName(groups.title ?? name),
  };
}

/** The most telling series for a file: of those whose pattern fits, the one with the longest. */
export function seriesForFile<S extends { pattern: string }>(
  fileName: string,
  all: readonly S[],
): { series: S; parts: NameParts } | undefined {
  const fitting = all.flatMap((series) => {
    const parts = partsByPattern(fileName, series.pattern);
    return parts ? [{ series, parts }] : [];
  });
  return fitting.sort((a, b) => b.series.pattern.length - a.series.pattern.length)[0];
}

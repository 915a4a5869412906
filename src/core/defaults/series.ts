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

type Token = { hole: '{episode}' | '{title}' | '*' } | { text: RegExp };

/** A pattern in pieces: text that has to stand there, and holes between. */
function tokensOf(pattern: string): Token[] {
  const holes = pattern.match(HOLES) ?? [];
  return pattern.split(HOLES).flatMap((text, index): Token[] => {
    const hole = holes[index] as '{episode}' | '{title}' | '*' | undefined;
    return [
      ...(text === '' ? [] : [{ text: new RegExp(literal(text), 'iuy') }]),
      ...(hole === undefined ? [] : [{ hole }]),
    ];
  });
}

/** Where a token may end that starts at a place, in the order in which it is tried. */
function endsOf(token: Token, name: string, start: number): number[] {
  if ('text' in token) {
    token.text.lastIndex = start;
    return token.text.test(name) ? [token.text.lastIndex] : [];
  }
  if (token.hole === '{episode}') {
    const digits = /^\d{1,6}/.exec(name.slice(start, start + 6))?.[0].length ?? 0;
    return Array.from({ length: digits }, (_, index) => start + digits - index);
  }
  const first = token.hole === '*' ? start : start + 1;
  return Array.from({ length: Math.max(0, name.length - first + 1) }, (_, index) => first + index);
}

/**
 * What stands in a pattern's holes, or undefined where the name does not fit. A place that a token has failed at is not
 * tried again, so that no pattern takes longer than the square of the name's length.
 */
function holesOf(name: string, tokens: readonly Token[]): Map<string, string> | undefined {
  const failed = new Set<string>();
  const found = new Map<string, string>();
  const fits = (index: number, start: number): boolean => {
    const token = tokens[index];
    if (!token) return start === name.length;
    const here = `${index} ${start}`;
    if (failed.has(here)) return false;
    for (const end of endsOf(token, name, start)) {
      if (!fits(index + 1, end)) continue;
      if ('hole' in token) found.set(token.hole, name.slice(start, end));
      return true;
    }
    failed.add(here);
    return false;
  };
  return fits(0, 0) ? found : undefined;
}

/** What a file's name tells by a pattern, or undefined where it does not fit. Endings such as .mp4 do not count. */
export function partsByPattern(fileName: string, pattern: string): NameParts | undefined {
  if (pattern.trim() === '' || patternFinding(pattern)) return undefined;
  const name = (fileName.split(/[\\/]/).pop() ?? '').replace(/(?<=.)\.[A-Za-z0-9]{2,5}$/, '');
  const holes = holesOf(name, tokensOf(pattern.trim()));
  return (
    holes && {
      episode: holes.get('{episode}')?.replace(/^0+(?=\d)/, ''),
      title: titleFromFileName(holes.get('{title}') ?? name),
    }
  );
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

import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { beforeFold } from '@/core/fitting';
import { textLength } from '@/core/words';

/** Texts as people write them: marks that combine, flags, families, scripts that join, a line end of two signs. */
const TEXTS = [
  'Steaming the ribs',
  'Öl und Pech',
  'O\u0308l',
  '🛶 on the water 🪵',
  '👩‍👩‍👧 and 👨🏽‍🔧',
  '🇨🇦🇬🇧🇳🇿',
  // Without conjuncts, which have been one grapheme since Unicode 15.1 (GB9c) only.
  'कीमत',
  '한국어 각',
  'two\r\nlines\n',
  '𝕜𝕖𝕖𝕝',
];
const LOCALE = { ...process.env, LC_ALL: 'C.UTF-8' };
const told = (program: string, args: string[], input: string) =>
  execFileSync(program, args, { input, env: LOCALE, maxBuffer: 1e7 });
const number = (...asked: Parameters<typeof told>) => Number(told(...asked).toString());

describe('lengths of a text, counted by other programs', () => {
  it.each(TEXTS)('%j', (text) => {
    // iconv of the C library: two bytes for each unit of UTF-16 (RFC 2781).
    expect(textLength(text, 'utf16')).toBe(told('iconv', ['-f', 'UTF-8', '-t', 'UTF-16LE'], text).length / 2);
    // wc of the GNU core utilities: characters are code points, bytes are those of UTF-8 (RFC 3629).
    expect(textLength(text, 'codePoint')).toBe(number('wc', ['-m'], text));
    expect(textLength(text, 'utf8')).toBe(number('wc', ['-c'], text));
    // Perl's \X: an extended grapheme cluster (UAX #29, perlrebackslash).
    expect(textLength(text, 'grapheme')).toBe(
      number('perl', ['-CS', '-0777', '-ne', 'print scalar(() = /\\X/g)'], text),
    );
  });

  it.each(TEXTS)('what shows of %j before a fold is its start, cut between two of Perl’s graphemes', (text) => {
    const graphemes = told('perl', ['-CS', '-0777', '-ne', 'print join("\\0", /\\X/g)'], text).toString().split('\0');
    for (const most of [1, 3, 8]) {
      const first = graphemes.slice(0, most).join('').split('\n');
      const kept = beforeFold(text, { lines: 2, most, unit: 'grapheme' });
      expect(kept).toBe(first.slice(0, 2).join('\n'));
    }
  });
});

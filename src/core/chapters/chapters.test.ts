import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chapterText, floor, fraction, ZERO } from '../time';
import { chapterLines, chaptersFromMarkers } from './chapters';
import { type MarkerKind, NO_CHOICE } from './choice';
import { joinToNeighbour, repairChapters, shortenTitle, startAtZero } from './repairs';
import { chapterFindings } from './rules';

const marker = (seconds: number, name: string, colour = 'green') => ({
  id: `${seconds}`,
  time: fraction(Math.round(seconds * 1000), 1000),
  name,
  colour,
  on: 'timeline' as const,
  kind: 'by choice' as MarkerKind,
});

const GREEN = { ...NO_CHOICE, colours: ['green'] };
const RULES = { firstAtZero: true, fewest: 3, shortest: 10 };
const MARKERS = [marker(31.9, 'Cut'), marker(0, 'Why'), marker(12, 'a note', 'red'), marker(75, 'Bolts')];
const WHOLE = { from: ZERO, to: fraction(100) };
const green = (markers: ReturnType<typeof marker>[], range = WHOLE) =>
  chaptersFromMarkers(markers, GREEN, range).chapters;

describe('chapters from markers', () => {
  it('take the chosen colours only, in order of time', () => {
    expect(chapterText(chapterLines(green(MARKERS), fraction(100)))).toBe('0:00 Why\n0:31 Cut\n1:15 Bolts');
    expect(chaptersFromMarkers(MARKERS, NO_CHOICE, WHOLE).chapters).toEqual([]);
  });

  it('list what lies outside the range, or on one second with another', () => {
    const all = [
      ...MARKERS,
      marker(31.1, 'twin'),
      marker(120, 'late'),
      { ...marker(50, 'unseen'), kind: 'note' as const },
    ];
    const { chapters, leftOut } = chaptersFromMarkers(all, GREEN, WHOLE);
    expect(chapters.map((chapter) => chapter.title)).toEqual(['Why', 'twin', 'Bolts']);
    expect(leftOut.map(({ marker: { name } }) => name)).toEqual(['Cut', 'late']);
  });

  it('count from the start of the exported range', () => {
    const { chapters, leftOut } = chaptersFromMarkers(MARKERS, GREEN, { from: fraction(63, 2), to: fraction(80) });
    expect(chapters.map((chapter) => chapter.time)).toEqual([fraction(2, 5), fraction(87, 2)]);
    expect(leftOut[0]?.why).toContain('before');
  });

  it('take hours where the cut needs them, all lines alike', () => {
    expect(chapterLines(green(MARKERS), fraction(3700)).map((line) => line.stamp)).toEqual([
      '0:00:00',
      '0:00:31',
      '0:01:15',
    ]);
  });
});

describe('rules of a site', () => {
  it('find too few, too many, too short, nameless and long-named chapters', () => {
    const few = green([marker(0, 'A'), marker(20, 'B')]);
    expect(chapterFindings(few, RULES, fraction(60)).map((finding) => finding.rule)).toEqual(['fewest']);
    const bad = green([marker(0, 'A'), marker(20, ' '), marker(55, 'A long name')]);
    const strict = { ...RULES, most: 2, longestTitle: { most: 5, unit: 'utf16' as const } };
    expect(chapterFindings(bad, strict, fraction(60)).map(({ rule, index }) => [rule, index])).toEqual([
      ['most', undefined],
      ['no title', 1],
      ['title', 2],
      ['shortest', 2],
    ]);
  });

  it('find nothing where all is well, or where there are no chapters', () => {
    expect(chapterFindings(green(MARKERS), RULES, fraction(100))).toEqual([]);
    expect(chapterFindings([], RULES, fraction(100))).toEqual([]);
  });
});

describe('repairs', () => {
  it('put an opening chapter before a late first one, and move an early first one to 0:00', () => {
    const repaired = (seconds: number) =>
      startAtZero(green([marker(seconds, 'A')]), 10).map(({ title, time }) => [title, time.num]);
    expect(repaired(20)).toEqual([
      ['Opening', 0],
      ['A', 20],
    ]);
    expect(repaired(4)).toEqual([['A', 0]]);
  });

  it('join a short chapter to the one before it, the first to the one after', () => {
    const three = green([marker(0, 'A'), marker(20, 'B'), marker(40, 'C')]);
    expect(joinToNeighbour(three, 1).map((chapter) => chapter.title)).toEqual(['A', 'C']);
    expect(joinToNeighbour(three, 0).map(({ title, time }) => [title, time.num])).toEqual([
      ['B', 0],
      ['C', 40],
    ]);
  });

  it('shorten a title at a word, never inside a grapheme', () => {
    expect(shortenTitle('Marking out the oak', { most: 12, unit: 'utf16' })).toBe('Marking out…');
    expect(shortenTitle('👩‍👩‍👧👩‍👩‍👧', { most: 10, unit: 'utf16' })).toBe('👩‍👩‍👧…');
    expect(shortenTitle('short', { most: 12, unit: 'utf16' })).toBe('short');
  });

  it('leave nothing that can be repaired, and change nothing that is well', () => {
    const rules = { ...RULES, fewest: 0, longestTitle: { most: 8, unit: 'grapheme' as const } };
    const times = fc.uniqueArray(fc.integer({ min: 0, max: 590 }), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(times, fc.string({ minLength: 1 }), (all, name) => {
        const made = green(
          all.map((time) => marker(time, `${name}x`)),
          { from: ZERO, to: fraction(600) },
        );
        const repaired = repairChapters(made, rules, fraction(600));
        expect(chapterFindings(repaired, rules, fraction(600))).toEqual([]);
        expect(repairChapters(repaired, rules, fraction(600))).toEqual(repaired);
        const stamps = repaired.map((chapter) => floor(chapter.time));
        expect(new Set(stamps).size).toBe(stamps.length);
      }),
    );
  });
});

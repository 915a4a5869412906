import { describe, expect, it } from 'vitest';
import { fraction } from '../time';
import { chapterFindings, chapterLines, chaptersFromMarkers, chapterText } from './chapters';

const marker = (seconds: number, name: string, colour = 'green') => ({
  id: `${seconds}`,
  time: fraction(Math.round(seconds * 1000), 1000),
  name,
  colour,
});

const RULES = { firstAtZero: true, fewest: 3, shortest: 10 };
const MARKERS = [marker(31.9, 'Cut'), marker(0, 'Why'), marker(12, 'a note', 'red'), marker(75, 'Bolts')];

describe('chapters from markers', () => {
  it('take the chosen colours only, in order of time', () => {
    const chapters = chaptersFromMarkers(MARKERS, ['green'], fraction(100));
    expect(chapterText(chapterLines(chapters, fraction(100)))).toBe('0:00 Why\n0:31 Cut\n1:15 Bolts');
    expect(chaptersFromMarkers(MARKERS, [], fraction(100))).toEqual([]);
  });

  it('leave out what lies outside the cut, and a second one on the same second', () => {
    const chapters = chaptersFromMarkers(
      [...MARKERS, marker(31.1, 'twin'), marker(120, 'late')],
      ['green'],
      fraction(100),
    );
    expect(chapters.map((chapter) => chapter.title)).toEqual(['Why', 'twin', 'Bolts']);
  });

  it('put an opening chapter before a late first one, and move an early first one to 0:00', () => {
    const late = chaptersFromMarkers([marker(20, 'A')], ['green'], fraction(60));
    expect(late.map(({ title, repair }) => [title, repair])).toEqual([
      ['Opening', 'put in'],
      ['A', undefined],
    ]);
    const early = chaptersFromMarkers([marker(4, 'A')], ['green'], fraction(60));
    expect(early.map(({ title, time, repair }) => [title, time.num, repair])).toEqual([['A', 0, 'moved']]);
  });

  it('take hours where the cut needs them, all lines alike', () => {
    const chapters = chaptersFromMarkers(MARKERS, ['green'], fraction(3700));
    expect(chapterLines(chapters, fraction(3700)).map((line) => line.stamp)).toEqual(['0:00:00', '0:00:31', '0:01:15']);
  });
});

describe('rules of a site', () => {
  it('find too few, too short and nameless chapters', () => {
    const few = chaptersFromMarkers([marker(0, 'A'), marker(20, 'B')], ['green'], fraction(60));
    expect(chapterFindings(few, RULES, fraction(60))[0]?.what).toContain('2 chapters');
    const short = chaptersFromMarkers([marker(0, 'A'), marker(20, ' '), marker(55, 'C')], ['green'], fraction(60));
    expect(chapterFindings(short, RULES, fraction(60)).map((finding) => finding.index)).toEqual([1, 2]);
  });

  it('find nothing where all is well, or where there are no chapters', () => {
    expect(chapterFindings(chaptersFromMarkers(MARKERS, ['green'], fraction(100)), RULES, fraction(100))).toEqual([]);
    expect(chapterFindings([], RULES, fraction(100))).toEqual([]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, fraction, ZERO } from '../time';
import { type TextUnit, textLength } from '../words';
import type { Chapter } from './chapters';
import { inOrder, OPENING_TITLE, repairChapters, shortenTitle } from './repairs';
import { type ChapterRules, chapterFindings } from './rules';
import { exportedRange, PLAIN_TIME_LINE, timeLineRate } from './time-line';

const chapter = (num: number, title: string, den = 1): Chapter => ({
  markerId: `${num}/${den}`,
  time: fraction(num, den),
  title,
  repair: undefined,
});
const RULES: ChapterRules = { firstAtZero: true, fewest: 3, shortest: 10 };
const rules = (chapters: Chapter[], given: ChapterRules = RULES, duration = fraction(100)) =>
  chapterFindings(chapters, given, duration).map(({ rule, index }) => [rule, index]);

describe('rules of chapters', () => {
  it('are kept by none at all, and by those exactly at each limit', () => {
    expect(rules([])).toEqual([]);
    expect(rules([chapter(0, 'A'), chapter(10, 'B'), chapter(90, 'C')])).toEqual([]);
  });

  it('are measured between the whole seconds that viewers see', () => {
    // 9.1 s apart, and yet 10 by the stamps 0:00 and 0:10.
    expect(rules([chapter(9, 'A', 10), chapter(100, 'B', 10), chapter(50, 'C')])).toEqual([]);
    expect(rules([chapter(0, 'A'), chapter(99, 'B', 10), chapter(50, 'C')])).toEqual([['shortest', 0]]);
  });

  it('name the chapter that breaks them', () => {
    expect(rules([chapter(1, 'A'), chapter(20, 'B'), chapter(40, 'C')])).toEqual([['start', 0]]);
    expect(rules([chapter(0, 'A'), chapter(20, ''), chapter(40, 'C')])).toEqual([['no title', 1]]);
    expect(rules([chapter(0, 'A'), chapter(40, 'B'), chapter(40, 'C')])).toContainEqual(['order', 2]);
    expect(rules([chapter(0, 'A'), chapter(40, 'B'), chapter(100, 'C')])).toContainEqual(['beyond', 2]);
    expect(rules([chapter(0, 'A'), chapter(20, 'B')])).toEqual([['fewest', undefined]]);
    expect(
      rules(
        [0, 20, 40].map((at) => chapter(at, 'A')),
        { ...RULES, most: 2 },
      ),
    ).toEqual([['most', undefined]]);
    const longestTitle = { most: 3, unit: 'utf8' as const };
    expect(rules([chapter(0, 'öl'), chapter(20, 'ööl'), chapter(40, 'C')], { ...RULES, longestTitle })).toEqual([
      ['title', 1],
    ]);
  });
});

describe('repairs', () => {
  const seconds = fc.array(fc.integer({ min: 0, max: 7_000_000 }), { minLength: 1, maxLength: 25 });
  const title = fc.constantFrom('Keel', 'Scarf joint and bolts', '👩‍👩‍👧 at the yard', 'x'.repeat(60));

  it('leave only what a person has to decide', () => {
    const longestTitle = { most: 12, unit: 'grapheme' as const };
    fc.assert(
      fc.property(seconds, title, (all, name) => {
        const chapters = all.map((at) => chapter(at, name, 1000));
        const repaired = repairChapters(chapters, { ...RULES, longestTitle }, fraction(6000));
        const left = chapterFindings(repaired, { ...RULES, longestTitle }, fraction(6000));
        const decided = left.filter(({ rule }) => rule !== 'fewest' && rule !== 'most');
        // One chapter that is too short by itself has no neighbour to be joined to.
        if (repaired.length > 1) expect(decided).toEqual([]);
      }),
    );
  });

  it('change nothing that keeps the rules, and nothing twice', () => {
    fc.assert(
      fc.property(seconds, (all) => {
        const once = repairChapters(
          all.map((at) => chapter(at, 'Keel', 1000)),
          RULES,
          fraction(6000),
        );
        expect(repairChapters(once, RULES, fraction(6000))).toEqual(once);
      }),
    );
  });

  it('put an opening before a late first one, and move an early one', () => {
    const late = repairChapters([chapter(30, 'A'), chapter(50, 'B')], RULES, fraction(100));
    expect(late.map((each) => each.title)).toEqual([OPENING_TITLE, 'A', 'B']);
    const early = repairChapters([chapter(4, 'A'), chapter(50, 'B')], RULES, fraction(100));
    expect(early[0]).toMatchObject({ time: ZERO, title: 'A', repair: 'moved' });
  });

  it('keep the first of two on one second, and none beyond the end', () => {
    const all = [chapter(200, 'late'), chapter(101, 'second', 10), chapter(100, 'first', 10)];
    expect(inOrder(all, fraction(150)).map((each) => each.title)).toEqual(['first']);
  });

  it('shorten titles to the limit, in the site’s count, at words where there are some', () => {
    const units = fc.constantFrom<TextUnit>('utf16', 'codePoint', 'grapheme', 'utf8');
    fc.assert(
      fc.property(title, units, fc.integer({ min: 4, max: 70 }), (name, unit, most) => {
        const short = shortenTitle(name, { most, unit });
        expect(textLength(short, unit)).toBeLessThanOrEqual(most);
        if (textLength(name, unit) <= most) expect(short).toBe(name);
        expect(short.isWellFormed?.() ?? true).toBe(true);
      }),
    );
    expect(shortenTitle('Scarf joint and bolts', { most: 13, unit: 'utf16' })).toBe('Scarf joint…');
  });
});

describe('the exported range', () => {
  it('ends with the out point or with the cut, whichever comes first', () => {
    const from = fraction(10);
    const end = (to: number | undefined, length: number | undefined) =>
      exportedRange(
        { ...PLAIN_TIME_LINE, from, to: to === undefined ? undefined : fraction(to) },
        length === undefined ? undefined : fraction(length),
      ).to;
    expect(end(undefined, 60)).toEqual(fraction(70));
    expect(end(40, 60)).toEqual(fraction(40));
    expect(end(90, 60)).toEqual(fraction(70));
    expect(end(90, undefined)).toEqual(fraction(90));
    expect(end(undefined, undefined)).toBeUndefined();
  });

  it('keeps exact times where the in point lies before the start', () => {
    const { to } = exportedRange({ ...PLAIN_TIME_LINE, from: fraction(-1001, 30000) }, fraction(1001, 30000));
    expect(to && compare(to, ZERO)).toBe(0);
  });

  it('counts drop-frame only where that is defined', () => {
    // SMPTE ST 12-1: drop-frame is for 30/1.001 frames a second and its multiples.
    expect(timeLineRate(fraction(30000, 1001), { dropFrame: true }).dropFrame).toBe(true);
    expect(timeLineRate(fraction(60000, 1001), { dropFrame: true }).dropFrame).toBe(true);
    expect(timeLineRate(fraction(24000, 1001), { dropFrame: true }).dropFrame).toBe(false);
    expect(timeLineRate(fraction(25), { dropFrame: true }).dropFrame).toBe(false);
  });
});

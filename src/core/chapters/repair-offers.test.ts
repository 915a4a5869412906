import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, fraction, minus } from '../time';
import type { Chapter } from './chapters';
import { allRepairs, mendsBetween, repairsFor } from './repair-offers';
import { type ChapterRules, chapterFindings } from './rules';

const RULES: ChapterRules = { firstAtZero: true, fewest: 3, shortest: 10, longestTitle: { most: 12, unit: 'utf16' } };
const END = fraction(120);

const chapter = (seconds: number, title = `At ${seconds}`): Chapter => ({
  markerId: `m${seconds}`,
  time: fraction(seconds),
  title,
  repair: undefined,
});

const offersOf = (chapters: Chapter[]) =>
  chapterFindings(chapters, RULES, END).map((finding) => ({
    rule: finding.rule,
    offers: repairsFor(finding, chapters, RULES, END).map(({ says }) => says),
  }));

describe('repairs that are offered', () => {
  it('answer the finding that they stand beside', () => {
    expect(offersOf([chapter(4), chapter(30), chapter(60)])).toEqual([{ rule: 'start', offers: ['Move it to 0:00'] }]);
    expect(offersOf([chapter(20), chapter(40), chapter(60)])[0]?.offers).toEqual([
      'Put an opening chapter before it',
      'Move it to 0:00',
    ]);
    expect(offersOf([chapter(0), chapter(20), chapter(25), chapter(60)])).toEqual([
      { rule: 'shortest', offers: ['Join it to the one before it'] },
    ]);
    expect(offersOf([chapter(0), chapter(30, 'Marking out the oak'), chapter(60)])[0]?.offers).toEqual([
      'Shorten it to “Marking out…”',
    ]);
    expect(offersOf([chapter(0), chapter(30, ''), chapter(60)])).toEqual([
      { rule: 'no title', offers: ['Name it “Part 2”', 'Join it to the one before it'] },
    ]);
    expect(offersOf([chapter(0), chapter(30)])).toEqual([{ rule: 'fewest', offers: [] }]);
  });

  it('come all at once where there are several, and then leave nothing that can be repaired', () => {
    const broken = [chapter(3), chapter(8), chapter(40), chapter(60, 'A name that is too long')];
    const all = allRepairs(broken, RULES, END);
    expect(all && chapterFindings(all.after, RULES, END).map(({ rule }) => rule)).toEqual([]);
    expect(allRepairs([chapter(0), chapter(30), chapter(60)], RULES, END)).toBeUndefined();
  });

  it('count what stands behind the end, where the length is known', () => {
    const late = [chapter(0), chapter(30), chapter(60, 'A name that is too long'), chapter(130)];
    const all = allRepairs(late, RULES, END);
    expect(all?.after.map(({ time }) => time.num / time.den)).toEqual([0, 30, 60]);
    expect(all && chapterFindings(all.after, RULES, END)).toEqual([]);
    // Without the length nothing is behind it, and one repair alone is no “all”.
    expect(allRepairs(late, RULES, undefined)).toBeUndefined();
  });
});

describe('what a repair changes on the time line', () => {
  it('moves, renames, and keeps as a note what is no longer a chapter; what is put in is new', () => {
    const before = [chapter(20), chapter(40), chapter(45)];
    const after: Chapter[] = [
      { markerId: undefined, time: fraction(0), title: 'Opening', repair: 'put in' },
      { ...chapter(20), title: 'New name' },
      chapter(40),
    ];
    expect(mendsBetween(before, after, fraction(100))).toEqual([
      { id: 'm45', time: fraction(145), name: 'At 45', kind: 'note' },
      { id: undefined, time: fraction(100), name: 'Opening', kind: 'chapter' },
      { id: 'm20', time: fraction(120), name: 'New name', kind: undefined },
    ]);
    expect(mendsBetween(before, before, fraction(100))).toEqual([]);
  });

  it('gives the chapters that were shown, whatever they were', () => {
    const times = fc.uniqueArray(fc.integer({ min: 0, max: 119 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(times, (all) => {
        const before = all.sort((a, b) => a - b).map((seconds) => chapter(seconds));
        const offer = allRepairs(before, RULES, END);
        if (!offer) return;
        const from = fraction(7);
        const line = new Map(before.map((each) => [each.markerId, each]));
        for (const { id, time, name, kind } of mendsBetween(before, offer.after, from)) {
          const key = id ?? 'new';
          if (kind === 'note') line.delete(key);
          else line.set(key, { markerId: id, time: minus(time, from), title: name, repair: undefined });
        }
        const made = [...line.values()].sort((a, b) => compare(a.time, b.time));
        expect(made.map(({ time, title }) => [time, title])).toEqual(
          offer.after.map(({ time, title }) => [time, title]),
        );
      }),
    );
  });
});

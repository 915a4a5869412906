import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { titleFromFileName } from '../words';
import { partsByPattern, patternFinding, seriesForFile } from './series';

describe('a series’ pattern', () => {
  it.each([
    ['plank-by-plank_14_launch-day_FINAL-v2.mp4', 'plank-by-plank_{episode}_{title}', '14', 'Launch day'],
    ['PLANK BY PLANK 07 steaming the ribs.mov', 'plank-by-plank_{episode}_{title}', '7', 'Steaming the ribs'],
    ['tide_notes_week-46-north-wind_web.mp4', 'tide_notes_week-{episode}-{title}', '46', 'North wind'],
    ['/exports/hand-tools-slowly_sharpening.mp4', 'hand-tools-slowly_{title}', undefined, 'Sharpening'],
    ['quay-school_three-knots_draft2.mp4', 'quay-school*', undefined, 'Quay school three knots'],
    ['2026-11 (a+b).mp4', '2026-11 (a+b)', undefined, '2026 11 (a b)'],
  ])('%s fits %s', (fileName, pattern, episode, title) => {
    expect(partsByPattern(fileName, pattern)).toEqual({ episode, title });
  });

  it.each([
    ['launch-day.mp4', 'plank-by-plank_{episode}_{title}'],
    ['plank-by-plank_launch-day.mp4', 'plank-by-plank_{episode}_{title}'],
    ['the plank-by-plank_1_x.mp4', 'plank-by-plank_{episode}_{title}'],
    ['anything.mp4', ''],
    ['anything.mp4', '{title}'],
  ])('%s does not fit %s', (fileName, pattern) => {
    expect(partsByPattern(fileName, pattern)).toBeUndefined();
  });

  it('says what is wrong with it', () => {
    expect(patternFinding('tide_{week}')).toContain('“{week}” is none of');
    expect(patternFinding('tide_{episode}_{episode}')).toContain('once');
    expect(patternFinding('*')).toContain('every file');
    expect(patternFinding('{title')).toContain('none of');
    expect(patternFinding('tide_*_{episode}')).toBeUndefined();
    expect(patternFinding('')).toBeUndefined();
  });

  it('that tells most of a name recognises it', () => {
    const all = ['plank*', 'plank-by-plank_{episode}_*', 'tide*'].map((pattern) => ({ pattern }));
    expect(seriesForFile('plank-by-plank_3_x.mp4', all)?.series).toBe(all[1]);
    expect(seriesForFile('plank.mp4', all)?.series).toBe(all[0]);
    expect(seriesForFile('other.mp4', all)).toBeUndefined();
  });

  it('fits the names that are made by it, whatever stands between their words', () => {
    const word = fc.constantFrom('keel', 'Ribs', 'steam', 'box', 'Größe', 'ny');
    const gap = fc.constantFrom('_', '-', ' ', '.', '__');
    const made = fc.record({
      words: fc.array(word, { minLength: 1, maxLength: 4 }),
      gap,
      episode: fc.integer({ min: 0, max: 999_999 }),
      zeros: fc.boolean(),
      ending: fc.constantFrom('', '_FINAL', '_v3', '-web'),
    });
    fc.assert(
      fc.property(made, ({ words, gap: between, episode, zeros, ending }) => {
        const number = zeros ? String(episode).padStart(6, '0') : String(episode);
        const name = `Plank${between}by${between}plank${between}${number}${between}${words.join('-')}${ending}.mp4`;
        expect(partsByPattern(name, 'plank-by-plank_{episode}_{title}')).toEqual({
          episode: String(episode),
          title: titleFromFileName(`${words.join('-')}${ending}`),
        });
      }),
    );
  });

  it('may have anything in its place, and gives back what it took where that was too much', () => {
    expect(partsByPattern('raw 12345 take.mov', '*{episode}5*')).toMatchObject({ episode: '1234' });
    expect(partsByPattern('a_b_c_d.mp4', 'a*c*')).toMatchObject({ title: 'A b c d' });
    expect(partsByPattern('a_b.mp4', 'a*c*')).toBeUndefined();
    expect(partsByPattern('x7.mp4', '{title}{episode}')).toBeUndefined();
    expect(partsByPattern('x7y.mp4', '{title}{episode}y')).toEqual({ title: 'X', episode: '7' });
  });

  it('of many holes is done with at once', () => {
    expect(partsByPattern('a'.repeat(500), `${'*a'.repeat(100)}*b`)).toBeUndefined();
  });

  it('takes a hostile name without hanging', () => {
    expect(partsByPattern(`plank_${'_'.repeat(5000)}`, 'plank_{episode}_{title}_*_*_*')).toBeUndefined();
  });
});

import { describe, expect, it } from 'vitest';
import { overLimit, textLength } from './limits';
import { tagFindings, tagsFromText } from './tags';
import { titleFromFileName } from './title-from-file';

describe('a title from a file name', () => {
  it.each([
    ['marrow_quay-plank-by-plank_ep07_FINAL-v3.mp4', 'Marrow Quay plank by plank ep07'],
    ['launch day.mov', 'Launch day'],
    ['/exports/2026/keel_part_two_v12.mp4', 'Keel part two'],
    ['C:\\out\\Steaming the ribs 1080p.mp4', 'Steaming the ribs'],
    ['tide-notes-week-46_web_final (2).mp4', 'Tide notes week 46'],
    ['episode 12.mp4', 'Episode 12'],
    ['final.mp4', 'Final'],
    ['v2.mp4', 'V2'],
    ['öl_und_pech-FINAL.mp4', 'Öl und pech'],
    ['mast.step.v2.mp4', 'Mast step'],
    ['.mp4', 'Mp4'],
  ])('%s becomes %s', (name, title) => {
    expect(titleFromFileName(name)).toBe(title);
  });
});

describe('limits', () => {
  it('are counted as each site counts', () => {
    const text = 'é👩‍👩‍👧';
    expect(textLength(text, 'utf16')).toBe(9);
    expect(textLength(text, 'codePoint')).toBe(6);
    expect(textLength(text, 'grapheme')).toBe(2);
    expect(textLength(text, 'utf8')).toBe(20);
  });

  it('say by how much a text is over', () => {
    expect(overLimit('abc', { most: 3, unit: 'utf16' }, 'Lanternfold')).toBeUndefined();
    expect(overLimit('abcd', { most: 3, unit: 'utf16' }, 'Lanternfold')).toContain('1 characters over the 3');
  });
});

describe('tags', () => {
  it('come from text with commas, each once whatever its case', () => {
    expect(tagsFromText(' keel, Scarf  joint,,KEEL,\n#boat ')).toEqual(['keel', 'Scarf joint', 'boat']);
  });

  it('are held against a site’s rules', () => {
    const rules = { most: 2, longest: 5 };
    expect(tagFindings(['one', 'two'], rules, 'S')).toEqual([]);
    expect(tagFindings(['one', 'two', 'threes'], rules, 'S')).toHaveLength(2);
  });
});

import { describe, expect, it } from 'vitest';
import { fraction, rate } from '../time';
import { isChosen, NO_CHOICE, nameFits } from './choice';
import { exportedRange, PLAIN_TIME_LINE, timeLineRate } from './time-line';

describe('which markers are for viewers', () => {
  const marker = { name: 'First cut', colour: 'green', on: 'timeline' as const, kind: 'by choice' as const };
  const green = { ...NO_CHOICE, colours: ['green'] };

  it('none, before a colour is chosen', () => {
    expect(isChosen(marker, NO_CHOICE)).toBe(false);
    expect(isChosen(marker, green)).toBe(true);
    expect(isChosen({ ...marker, colour: '' }, { ...NO_CHOICE, colours: [''] })).toBe(true);
  });

  it('those that meet colour, place and name', () => {
    expect(isChosen(marker, { ...green, places: ['clip'] })).toBe(false);
    expect(isChosen({ ...marker, on: 'clip' }, { ...green, places: ['clip', 'track'] })).toBe(true);
    expect(isChosen(marker, { ...green, name: 'first' })).toBe(true);
    expect(isChosen(marker, { ...green, name: 'second' })).toBe(false);
  });

  it('one by one, whatever the choice is', () => {
    expect(isChosen({ ...marker, kind: 'note' }, green)).toBe(false);
    expect(isChosen({ ...marker, kind: 'chapter' }, NO_CHOICE)).toBe(true);
  });

  it.each([
    ['Chapter: First cut', 'chapter:*', true],
    ['A chapter', 'chapter:*', false],
    ['First cut', '*cut', true],
    ['First cut of two', '*cut', false],
    ['First cut of two', 'f*cut*two', true],
    ['aXbXc', 'a*b*b*c', false],
    ['aa', 'a*a', true],
    ['a', 'a*a', false],
    ['Fix [colour] (here)', '[colour]', true],
    ['anything', '', true],
  ])('%j fits %j: %s', (name, pattern, fits) => {
    expect(nameFits(name, pattern)).toBe(fits);
  });
});

describe('the exported range', () => {
  const line = { ...PLAIN_TIME_LINE, from: fraction(10) };

  it('goes from the in point to the out point, or to the end of the cut', () => {
    expect(exportedRange(line, undefined)).toEqual({ from: fraction(10), to: undefined });
    expect(exportedRange(line, fraction(60))).toEqual({ from: fraction(10), to: fraction(70) });
    expect(exportedRange({ ...line, to: fraction(50) }, fraction(60)).to).toEqual(fraction(50));
    expect(exportedRange({ ...line, to: fraction(90) }, fraction(60)).to).toEqual(fraction(70));
  });

  it('is counted in drop-frame only where that is defined', () => {
    expect(timeLineRate(fraction(30000, 1001), { dropFrame: true })).toEqual(rate(30000, 1001, true));
    expect(timeLineRate(fraction(25), { dropFrame: true })).toEqual(rate(25));
  });
});

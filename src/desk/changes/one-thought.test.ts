import { describe, expect, it } from 'vitest';
import { goesOn } from './one-thought';

const step = (before: unknown, after: unknown) => ({ before: JSON.stringify(before), after: JSON.stringify(after) });

describe('a change goes on with the last one', () => {
  it('where it begins with what that ended with', () => {
    expect(goesOn(step('', 'Ke'), step('Ke', 'Keel'))).toBe(true);
    expect(goesOn(step('', 'Ke'), step('Other', 'Keel'))).toBe(false);
  });

  it('in the same part of a whole, and in no other', () => {
    const place = step({ place: '', ratings: true }, { place: 'Yard', ratings: true });
    expect(goesOn(place, step({ place: 'Yard', ratings: true }, { place: 'Yard 2', ratings: true }))).toBe(true);
    expect(goesOn(place, step({ place: 'Yard', ratings: true }, { place: 'Yard', ratings: false }))).toBe(false);
  });

  it('for the same channel only', () => {
    const one = step({ id: 'a', own: {} }, { id: 'a', own: { title: 'x' } });
    expect(goesOn(one, step({ id: 'b', own: {} }, { id: 'b', own: { title: 'y' } }))).toBe(false);
    expect(goesOn(one, step({ id: 'a', own: { title: 'x' } }, { id: 'a', own: { title: 'xy' } }))).toBe(true);
  });

  it('but not where a thing was made or taken away, or put in a list', () => {
    const link = (label: string) => ({ name: 'plans', link: { label, url: 'https://a.example' } });
    expect(goesOn(step(link('P'), link('Pl')), step(link('Pl'), link('Plans')))).toBe(true);
    expect(goesOn(step(link('P'), link('Pl')), step(link('Pl'), { name: 'plans', link: null }))).toBe(false);
    expect(goesOn(step({ name: 'plans', link: null }, link('P')), step(link('P'), link('Pl')))).toBe(false);
    const tags = (...items: string[]) => ({ field: 'tags', value: { way: 'add', items } });
    expect(goesOn(step(tags(), tags('a')), step(tags('a'), tags('a', 'b')))).toBe(false);
  });

  it('where there was nothing before', () => {
    expect(goesOn(step(null, { a: 1 }), step({ a: 1 }, { a: 2 }))).toBe(true);
  });
});

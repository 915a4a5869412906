import { describe, expect, it } from 'vitest';
import { fraction, rate } from '../time';
import { marker } from './marker';
import { importEffect } from './merge';

const at = rate(25);
const existing = [
  { ...marker({ time: fraction(1), name: 'A', colour: 'red' }), id: 'a' },
  { ...marker({ time: fraction(2), name: 'B' }), id: 'b' },
];
const found = [
  marker({ time: fraction(101, 100), name: 'A new name' }),
  marker({ time: fraction(2), name: 'B' }),
  marker({ time: fraction(3), name: 'C' }),
];

describe('an import', () => {
  it('merges by frame: changes what is at the same one, leaves what is alike, adds the rest', () => {
    const { fresh, changed, gone } = importEffect(existing, found, 'merge', at);
    expect(fresh.map((each) => each.name)).toEqual(['C']);
    expect(changed.map(({ id, to }) => [id, to.name, to.time])).toEqual([['a', 'A new name', fraction(1)]]);
    expect(gone).toEqual([]);
  });

  it('adds everything beside, or replaces everything', () => {
    expect(importEffect(existing, found, 'add', at)).toMatchObject({ changed: [], gone: [] });
    expect(importEffect(existing, found, 'replace', at).gone).toEqual(['a', 'b']);
    expect(importEffect(existing, found, 'replace', at).fresh).toHaveLength(3);
  });
});

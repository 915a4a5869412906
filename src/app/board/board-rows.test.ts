import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BOARD_GROUPS, BOARD_ORDERS } from '@/core/drop';
import type { BoardRow, BoardView } from '@/desk/views/views';
import { filterQuery, NO_FILTER, withChanged, withMore } from './board-rows';

const row = (videoId: string, group: BoardRow['group'], title = ''): BoardRow => ({
  ...{ videoId, group, title, shownTitle: title, series: undefined, pictureId: undefined },
  ...{ cut: undefined, betterCut: undefined, drops: [] },
});
const board = (rows: BoardRow[], more = false): BoardView => ({ channels: [], rows, more, series: [] });
const ids = ({ rows }: BoardView) => rows.map(({ videoId }) => videoId);

describe('a Board on which something has changed', () => {
  const now = board([row('c', 'needs you'), row('d', 'on the way'), row('a', 'on the way')]);

  it('puts a row where it belongs now, adds what is new, and drops what is gone', () => {
    expect(ids(withChanged(now, ['c'], [row('c', 'on the way')], { order: 'needs', by: '' }))).toEqual(['d', 'c', 'a']);
    expect(ids(withChanged(now, ['e'], [row('e', 'needs you')], { order: 'needs', by: '' }))).toEqual([
      'e',
      'c',
      'd',
      'a',
    ]);
    expect(ids(withChanged(now, ['d'], [], { order: 'needs', by: '' }))).toEqual(['c', 'a']);
  });

  it('leaves what comes after the last row that was read to be read', () => {
    const part = { ...now, more: true };
    expect(ids(withChanged(part, ['c'], [row('c', 'live lately')], { order: 'needs', by: '' }))).toEqual(['d', 'a']);
    expect(ids(withChanged(part, ['c'], [row('c', 'on the way')], { order: 'needs', by: '' }))).toEqual([
      'd',
      'c',
      'a',
    ]);
  });

  it('comes to the same as reading it anew, whatever changes', () => {
    const rows = fc.uniqueArray(
      fc.record({
        id: fc.stringMatching(/^[a-z]{3}$/),
        group: fc.constantFrom(...BOARD_GROUPS),
        title: fc.stringMatching(/^[a-z]{1,3}$/),
      }),
      {
        selector: ({ id }) => id,
        maxLength: 12,
      },
    );
    fc.assert(
      fc.property(rows, rows, fc.constantFrom(...BOARD_ORDERS), (before, after, order) => {
        const made = (each: { id: string; group: BoardRow['group']; title: string }[]) =>
          each.map(({ id, group, title }) => row(id, group, title));
        const sorted = withChanged(board([]), [], made(before), { order, by: '' });
        const named = after.map(({ id }) => id);
        const changed = withChanged(sorted, named, made(after), { order, by: '' });
        const anew = made([...before.filter(({ id }) => !named.includes(id)), ...after]);
        expect(ids(changed)).toEqual(ids(withChanged(board([]), [], anew, { order, by: '' })));
      }),
    );
  });

  it('has no row twice when more are read', () => {
    const next = withMore({ ...now, more: true }, board([row('a', 'on the way'), row('b', 'live lately')]));
    expect(ids(next)).toEqual(['c', 'd', 'a', 'b']);
    expect(next.more).toBe(false);
  });
});

it('a filter stands in the address with what it says, and nothing else', () => {
  expect(filterQuery(NO_FILTER).toString()).toBe('');
  expect(filterQuery({ ...NO_FILTER, find: 'a & b', group: 'needs you' }).toString()).toBe(
    'find=a+%26+b&group=needs+you',
  );
  expect(filterQuery({ ...NO_FILTER, group: 'waiting' }, 'group').size).toBe(0);
});

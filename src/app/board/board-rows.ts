import type { Privacy } from '@/core/delivery';
import { BOARD_GROUPS, type BoardLack, type BoardOrder, stateRank } from '@/core/drop';
import type { BoardRow, BoardView } from '@/desk/views/views';

const rank = (row: BoardRow) => BOARD_GROUPS.indexOf(row.group);

/** The part of a filter that says how rows are sorted. */
export type Sorting = Pick<BoardFilter, 'order' | 'by'>;

/** How a video's drop on a channel stands, by its place among others. */
export const rankOn = (row: BoardRow, channelId: string): number =>
  stateRank(row.drops.find((drop) => drop.channelId === channelId)?.state);

/** Which of two rows stands first, as the database has it. Ids are in the order in which the videos came. */
function inOrder({ order, by }: Sorting): (a: BoardRow, b: BoardRow) => number {
  const newestFirst = (a: BoardRow, b: BoardRow) => (a.videoId < b.videoId ? 1 : -1);
  if (order === 'title') return (a, b) => a.title.localeCompare(b.title, 'en') || -newestFirst(a, b);
  if (order === 'newest') return newestFirst;
  if (order === 'channel') return (a, b) => rankOn(a, by) - rankOn(b, by) || newestFirst(a, b);
  return (a, b) => rank(a) - rank(b) || newestFirst(a, b);
}

/**
 * A Board on which some videos have changed: each stands where it belongs now. What would stand after the last row is left to
 * be read when somebody scrolls there.
 * @param changed the ids of the videos
 * @param rows as many of them as are there and fit what was asked for
 */
export function withChanged(
  board: BoardView,
  changed: readonly string[],
  rows: readonly BoardRow[],
  sorting: Sorting,
): BoardView {
  const compare = inOrder(sorting);
  const last = board.rows.at(-1);
  const kept = board.rows.filter(({ videoId }) => !changed.includes(videoId));
  const fresh = rows.filter((row) => !board.more || (last !== undefined && compare(row, last) <= 0));
  return { ...board, rows: [...kept, ...fresh].sort(compare) };
}

/** A Board with the rows after its last. What has come to stand among them meanwhile is not there twice. */
export function withMore(board: BoardView, next: BoardView): BoardView {
  const ids = new Set(board.rows.map(({ videoId }) => videoId));
  return { ...board, rows: [...board.rows, ...next.rows.filter(({ videoId }) => !ids.has(videoId))], more: next.more };
}

/** What the Board is asked for, as a person chose it. */
export interface BoardFilter {
  find: string;
  group: BoardRow['group'] | '';
  seriesId: string;
  channelId: string;
  privacy: Privacy | '';
  lacks: BoardLack | '';
  /** Added within so many days, as a number. */
  days: string;
  order: BoardOrder;
  /** The channel that is sorted by, where the order is by one. */
  by: string;
}

export const NO_FILTER: BoardFilter = {
  ...{ find: '', group: '', seriesId: '', channelId: '', privacy: '', lacks: '', days: '' },
  ...{ order: 'needs', by: '' },
};

/** What a filter chooses, without the order. */
export const choiceOf = (filter: BoardFilter): BoardFilter => ({ ...filter, order: NO_FILTER.order, by: '' });

/** A filter as an address has it; what says nothing is left out. */
export function filterQuery(filter: BoardFilter, but?: keyof BoardFilter): URLSearchParams {
  const entries = Object.entries(filter).filter(([field, value]) => {
    return field !== but && value.trim() !== '' && value !== NO_FILTER[field as keyof BoardFilter];
  });
  return new URLSearchParams(entries);
}

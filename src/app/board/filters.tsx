import { BOARD_GROUPS, type BoardGroup } from '@/core/drop';
import type { BoardCounts, BoardView } from '@/desk/views/views';
import { BUTTONS } from '@/ui/button-words';
import { CHOOSE_CHIP, Choose } from '@/ui/choose';
import { type BoardFilter, filterQuery, NO_FILTER } from './board-rows';
import { ColumnChoice } from './column-choice';
import { FilterMenu } from './filter-menu';
import { KeptViews } from './kept-views';
import type { Columns } from './use-columns';

interface FiltersProps {
  filter: BoardFilter;
  set: (part: Partial<BoardFilter>) => void;
  board: BoardView;
  counts: BoardCounts['counts'];
  nameOf: (group: BoardGroup) => { name: string };
  columns: Columns;
  /** Shows what a kept view asks for. */
  onTake: (query: string) => void;
}

const ORDERS: (readonly [BoardFilter['order'], string])[] = [
  ['needs', 'what needs you first'],
  ['newest', 'newest first'],
  ['title', 'by title'],
];

/** What the Board shows: one group or all, what of it, in which order and columns, and what was kept by name. */
export function Filters({ filter, set, board, counts, nameOf, columns, onTake }: FiltersProps) {
  const sortedBy = filter.order === 'channel' ? board.channels.find(({ id }) => id === filter.by) : undefined;
  const all = Object.values(counts).reduce((sum, count) => sum + count, 0);
  const chips: [BoardFilter['group'], string, number][] = [
    ['', 'All', all],
    ...BOARD_GROUPS.map((group): [BoardGroup, string, number] => [group, nameOf(group).name, counts[group]]),
  ];
  const changed = Object.entries(NO_FILTER).some(([field, value]) => filter[field as keyof BoardFilter] !== value);
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <fieldset className="flex flex-wrap gap-2">
        <legend className="sr-only">Which videos</legend>
        {chips.map(([group, name, count]) => (
          <button
            key={name}
            type="button"
            aria-pressed={filter.group === group}
            onClick={() => set({ group })}
            className="rounded-full border border-edge bg-card px-3 py-1 text-sm aria-pressed:border-rim aria-pressed:bg-rim aria-pressed:text-card"
          >
            {name}{' '}
            <b
              className={`font-semibold ${group === 'needs you' && count > 0 && filter.group !== group ? 'text-snag' : ''}`}
            >
              {count.toLocaleString('en')}
            </b>
          </button>
        ))}
      </fieldset>
      <div className="ml-auto flex flex-wrap items-center gap-2">
        {changed && (
          <button type="button" onClick={() => set(NO_FILTER)} className="text-copper text-sm underline">
            {BUTTONS.showAll}
          </button>
        )}
        <FilterMenu filter={filter} set={set} board={board} />
        <Choose
          label="Order"
          value={filter.order}
          options={sortedBy ? [...ORDERS, ['channel', `by ${sortedBy.name}`]] : ORDERS}
          onChange={(order) => set({ order, by: order === 'channel' ? filter.by : '' })}
          className={CHOOSE_CHIP}
        />
        <ColumnChoice channels={board.channels} columns={columns} />
        <KeptViews query={filterQuery(filter).toString()} onTake={onTake} />
      </div>
    </div>
  );
}

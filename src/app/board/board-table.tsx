'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { BOARD_GROUPS, type BoardGroup } from '@/core/drop';
import type { BoardRow, BoardView } from '@/desk/views/views';
import type { Arrival } from '@/ui/arrivals/arrivals';
import type { Sorting } from './board-rows';
import type { Selection } from './many/use-selection';
import type { Columns } from './use-columns';
import { VideoRow } from './video-row';

const ROW_PIXELS = 68;
const GROUP_PIXELS = 32;
/** Before a page has been measured, which on the server is never. */
const FIRST_RECT = { width: 1280, height: 620 };
/** So near to the last row, the next ones are read; the first page of a screen of usual height asks for none. */
const ROWS_AHEAD = 6;
const VIDEO_PIXELS = 330;
const CHANNEL_PIXELS = 147;

type Line = { group: BoardGroup } | { row: BoardRow };

interface BoardTableProps {
  board: BoardView;
  /** Whether the rows stand in their groups, each under its name. */
  grouped: boolean;
  arrivals: ReadonlyMap<string, Arrival>;
  /** What each group is called, and what is said of it. */
  nameOf: (group: BoardGroup) => { name: string; says: string };
  readMore: () => void;
  /** What was asked for; where that is another, the table is at its top again. */
  asked: string;
  /** What the rows were searched for. */
  find: string;
  selection: Selection;
  columns: Columns;
  sorted: Sorting;
  onSort: (sorting: Sorting) => void;
}

/** Rows with, where they are grouped, a line before each group. */
function linesOf(rows: readonly BoardRow[], grouped: boolean): Line[] {
  if (!grouped) return rows.map((row) => ({ row }));
  return BOARD_GROUPS.flatMap((group): Line[] => {
    const own = rows.filter((row) => row.group === group);
    return own.length === 0 ? [] : [{ group }, ...own.map((row) => ({ row }))];
  });
}

/** Videos down, channels across; only the rows in view are drawn, and more are read on the way down. */
export function BoardTable({
  board,
  grouped,
  arrivals,
  nameOf,
  readMore,
  asked,
  find,
  selection,
  columns,
  sorted,
  onSort,
}: BoardTableProps) {
  const { rows, more } = board;
  const channels = useMemo(
    () =>
      board.channels.filter(({ id }) => {
        if (columns.hidden.has(id)) return false;
        return !columns.hideEmpty || rows.some(({ drops }) => drops.some(({ channelId }) => channelId === id));
      }),
    [board.channels, rows, columns],
  );
  const lines = useMemo(() => linesOf(rows, grouped), [rows, grouped]);
  const scroll = useRef<HTMLElement>(null);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (index) => {
      const line = lines[index];
      return line && 'group' in line ? GROUP_PIXELS : ROW_PIXELS;
    },
    getItemKey: (index) => {
      const line = lines[index];
      return line === undefined ? index : 'group' in line ? line.group : line.row.videoId;
    },
    initialRect: FIRST_RECT,
    overscan: 4,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when something else is asked for
  useEffect(() => {
    if (scroll.current) scroll.current.scrollTop = 0;
  }, [asked]);
  const shown = virtual.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && last >= lines.length - ROWS_AHEAD) readMore();
  }, [more, last, lines.length, readMore]);
  const before = shown[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0);
  const width = VIDEO_PIXELS + channels.length * CHANNEL_PIXELS;
  return (
    <section
      ref={scroll}
      aria-label="Videos"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keys (WCAG 2.1.1)
      tabIndex={0}
      className="enamel relative max-h-[calc(100dvh-190px)] min-h-72 overflow-auto max-sm:max-h-[85dvh]"
    >
      <table
        aria-rowcount={more ? -1 : lines.length + 1}
        style={{ '--board-width': `${width}px` } as React.CSSProperties}
        className="w-full border-separate border-spacing-0 text-left max-sm:block sm:table-fixed sm:min-w-[var(--board-width)]"
      >
        <thead className="max-sm:sr-only">
          <tr>
            <th
              scope="col"
              style={{ width: VIDEO_PIXELS }}
              className="sticky top-0 left-0 z-20 border-rim border-b-[1.5px] bg-card px-3.5 py-2 text-sm"
            >
              <span className="flex items-center gap-2.5">
                <input
                  type="checkbox"
                  aria-label="Select all that are shown"
                  checked={rows.length > 0 && rows.every(({ videoId }) => selection.ids.has(videoId))}
                  onChange={({ target }) => selection.set(target.checked ? rows.map(({ videoId }) => videoId) : [])}
                  className="size-5 accent-[var(--rim)]"
                />
                <SortBy
                  name="Video"
                  sorted={sorted.order === 'title'}
                  onSort={() => onSort({ order: sorted.order === 'title' ? 'needs' : 'title', by: '' })}
                />
              </span>
            </th>
            {channels.map((channel) => (
              <th
                key={channel.id}
                scope="col"
                className="sticky top-0 z-10 border-rim border-b-[1.5px] bg-card px-2.5 py-2 text-sm leading-snug"
              >
                <SortBy
                  name={channel.name}
                  sorted={sorted.order === 'channel' && sorted.by === channel.id}
                  onSort={() => {
                    const already = sorted.order === 'channel' && sorted.by === channel.id;
                    onSort(already ? { order: 'needs', by: '' } : { order: 'channel', by: channel.id });
                  }}
                />
                <span className="block font-normal text-[13px] text-soft">
                  {channel.siteName}
                  {!channel.connected && ', not connected'}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="max-sm:block">
          {before > 0 && <Gap pixels={before} columns={channels.length + 1} />}
          {shown.map(({ index, key }) => {
            const line = lines[index];
            if (!line) return null;
            if ('row' in line) {
              const { row } = line;
              return (
                <VideoRow
                  key={key}
                  index={index}
                  measure={virtual.measureElement}
                  row={row}
                  channels={channels}
                  selected={selection.ids.has(row.videoId)}
                  onSelect={selection.toggle}
                  find={find}
                  arrival={arrivals.get((row.betterCut ?? row.cut)?.id ?? '')}
                />
              );
            }
            const { name, says } = nameOf(line.group);
            return (
              <tr
                key={key}
                data-index={index}
                aria-rowindex={index + 2}
                ref={virtual.measureElement}
                className="max-sm:block"
              >
                <th
                  scope="rowgroup"
                  colSpan={channels.length + 1}
                  className="border-line border-t bg-sunk px-3.5 py-1.5 max-sm:block"
                >
                  <span className="sticky left-3.5">
                    <span className="font-display font-semibold text-sm">{name}</span>{' '}
                    <span className="ml-1 font-normal text-[13px] text-soft">{says}</span>
                  </span>
                </th>
              </tr>
            );
          })}
          {after > 0 && <Gap pixels={after} columns={channels.length + 1} />}
        </tbody>
      </table>
    </section>
  );
}

/** The head of a column, which sorts by it; pressed again, what needs a person comes first again. */
function SortBy({ name, sorted, onSort }: { name: string; sorted: boolean; onSort: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={sorted}
      data-tip={sorted ? 'Sorted by this' : `Sort by ${name}`}
      onClick={onSort}
      className="min-h-6 text-left font-semibold hover:underline"
    >
      {name}
      {sorted && <span aria-hidden> ↓</span>}
    </button>
  );
}

/** The room of rows that are not drawn. */
function Gap({ pixels, columns }: { pixels: number; columns: number }) {
  return (
    <tr aria-hidden className="max-sm:block">
      <td colSpan={columns} style={{ height: pixels }} className="max-sm:block" />
    </tr>
  );
}

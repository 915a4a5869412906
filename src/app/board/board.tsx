'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { BoardGroup } from '@/core/drop';
import type { BoardCounts, BoardView } from '@/desk/views/views';
import { useArrivals } from '@/ui/arrivals/arrivals';
import { ask } from '@/ui/ask';
import { type BoardFilter, choiceOf, filterQuery } from './board-rows';
import { BoardTable } from './board-table';
import { Filters } from './filters';
import { headline, underline } from './headline';
import { ManyBar } from './many/many-bar';
import { ManyProgress } from './many/many-progress';
import { useSelection } from './many/use-selection';
import { useBoard } from './use-board';
import { useColumns } from './use-columns';

const GROUPS: Record<BoardGroup, { name: string; says: string }> = {
  'needs you': { name: 'Needs you', says: '' },
  'on the way': { name: 'Under way', says: '' },
  waiting: { name: 'Ready to open', says: 'checked, and waiting for you or for its time' },
  'on the desk': { name: 'Not sent', says: '' },
  'live lately': { name: 'Live', says: '' },
};

/** Typing that rests for so long is looked for. */
const TYPING_MILLISECONDS = 150;

interface BoardProps {
  first: { filter: BoardFilter; view: BoardView; counts: BoardCounts };
}

/** Home: videos down, channels across, in each crossing where the drop stands. */
export function Board({ first }: BoardProps) {
  const [filter, setFilter] = useState(first.filter);
  const [find, setFind] = useState(first.filter.find);
  // Whoever comes here once more, as by the name of this place in the bar, comes with what the address asks for.
  const came = useRef(first);
  useEffect(() => {
    if (came.current === first) return;
    came.current = first;
    setFilter(first.filter);
    setFind(first.filter.find);
  }, [first]);
  const { board, counts, readMore } = useBoard(filter, first);
  const order = useMemo(() => board.rows.map(({ videoId }) => videoId), [board.rows]);
  const selection = useSelection(order);
  const columns = useColumns();
  const router = useRouter();
  const { arrivals, unheard } = useArrivals();
  const typing = useRef<ReturnType<typeof setTimeout>>(undefined);
  const set = (part: Partial<BoardFilter>) => {
    clearTimeout(typing.current);
    const next = { ...filter, find, ...part };
    setFind(next.find);
    setFilter(next);
    const query = filterQuery(next).toString();
    window.history.replaceState(null, '', query === '' ? '/' : `/?${query}`);
  };
  const newestSet = useRef(set);
  newestSet.current = set;
  useEffect(() => () => clearTimeout(typing.current), []);
  // A file comes from this page for as long as it is open; what is on its way to a site needs no page.
  const nameOf = (group: BoardGroup) => {
    if (group !== 'on the way') return GROUPS[group];
    const says = arrivals.size > 0 ? 'keep this page open until the files have arrived' : 'you can close this page';
    return { ...GROUPS[group], says };
  };
  const allIds = async () => {
    const query = filterQuery(choiceOf(filter));
    return (await ask<{ ids: string[] }>(`/api/board/ids?${query}`)).ids;
  };
  const inAll =
    filter.group === ''
      ? Object.values(counts.counts).reduce((sum, count) => sum + count, 0)
      : counts.counts[filter.group];
  const isFiltered = filterQuery(choiceOf(filter)).size > 0;
  return (
    <main className="min-h-[calc(100vh-56px)] px-4 py-4 sm:px-7">
      <div className="mb-2.5 flex flex-wrap items-end gap-x-6 gap-y-2">
        <h1>{headline(counts.needYou)}</h1>
        <p className="text-soft">{underline(counts.moving, [...arrivals.values()])}</p>
        {unheard > 0 && <p role="status">{unheard} more wait for Kettle Drop to answer</p>}
        <input
          type="search"
          value={find}
          onChange={({ target: { value } }) => {
            setFind(value);
            clearTimeout(typing.current);
            typing.current = setTimeout(() => newestSet.current({ find: value }), TYPING_MILLISECONDS);
          }}
          placeholder="Find a video, file or link"
          aria-label="Find a video by its title, file, series or link"
          className="ml-auto w-full rounded-full border border-edge bg-card px-4 py-1.5 sm:w-64"
        />
      </div>
      <ManyProgress />
      {board.rows.length === 0 && !isFiltered ? (
        <Empty connected={board.channels.length > 0} />
      ) : (
        <>
          <Filters
            filter={filter}
            set={set}
            board={board}
            counts={counts.counts}
            nameOf={nameOf}
            columns={columns}
            onTake={(query) => router.push(query === '' ? '/' : `/?${query}`)}
          />
          {board.rows.length === 0 ? (
            <p className="enamel p-6 text-soft">No video fits what you chose.</p>
          ) : (
            <BoardTable
              board={board}
              grouped={filter.order === 'needs'}
              arrivals={arrivals}
              nameOf={nameOf}
              readMore={readMore}
              asked={filterQuery(filter).toString()}
              find={filter.find}
              selection={selection}
              columns={columns}
              sorted={filter}
              onSort={set}
            />
          )}
        </>
      )}
      <ManyBar selection={selection} inAll={inAll} allIds={allIds} series={board.series} />
      <p className="mt-3 text-[13px] text-soft">Drop finished videos on any page to add them.</p>
    </main>
  );
}

function Empty({ connected }: { connected: boolean }) {
  return (
    <section className="enamel px-8 py-14 text-center">
      <h2 className="mb-2 text-xl">Nothing is on the Board yet</h2>
      <p className="mx-auto max-w-[52ch] text-soft">
        {connected ? (
          'Drop a finished video here, or press “Add videos”. It starts to arrive at once, and you can write its words meanwhile.'
        ) : (
          <>
            First{' '}
            <Link href="/channels" className="textlink">
              connect a channel
            </Link>
            . Then drop a finished video here, or press “Add videos”.
          </>
        )}
      </p>
    </section>
  );
}

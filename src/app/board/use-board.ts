'use client';

import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import type { BoardCounts, BoardMissing, BoardView } from '@/desk/look/views';
import { ask } from '@/ui/ask';
import { useChangedVideos } from '@/ui/changed-videos';
import { type BoardFilter, filterQuery, withChanged, withMore } from './board-rows';

/** Changes of so many videos at once are read as the page is: anew. */
const MOST_AT_ONCE = 100;
/** As many rows as are there are read anew, up to so many. */
const MOST_READ_ANEW = 400;
/** Whoever scrolls goes on scrolling. */
const NEXT_ROWS = 60;
/** Counting takes the database a look at every video, so it is not done with every byte that moves. */
const COUNT_EVERY_MILLISECONDS = 1000;

/** Calls what is given at once, and again after a pause where it was called meanwhile. */
function useSpaced(work: () => void, milliseconds: number): () => void {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const again = useRef(false);
  const newest = useRef(work);
  newest.current = work;
  useEffect(() => () => clearTimeout(timer.current), []);
  return useCallback(() => {
    const run = () => {
      again.current = false;
      newest.current();
      timer.current = setTimeout(() => {
        timer.current = undefined;
        if (again.current) run();
      }, milliseconds);
    };
    if (timer.current) again.current = true;
    else run();
  }, [milliseconds]);
}

/**
 * The Board's rows as they are now: the first of them, more as somebody scrolls, and of what changes those rows alone.
 * @param first what the page came with, for the filter that it came with
 */
export function useBoard(filter: BoardFilter, first: { filter: BoardFilter; view: BoardView; counts: BoardCounts }) {
  const client = useQueryClient();
  const asked = filterQuery(filter).toString();
  const came = asked === filterQuery(first.filter).toString();
  const queryKey = ['board', asked];
  const newest = useRef(queryKey);
  newest.current = queryKey;
  const loaded = () => client.getQueryData<BoardView>(queryKey)?.rows.length ?? 0;
  const { data = first.view, isPlaceholderData } = useQuery({
    queryKey,
    queryFn: () => {
      const most = loaded() === 0 ? '' : `&most=${Math.min(MOST_READ_ANEW, Math.max(24, loaded()))}`;
      return ask<BoardView>(`/api/board?${asked}${most}`);
    },
    initialData: came ? first.view : undefined,
    placeholderData: keepPreviousData,
  });
  const countsKey = ['board-counts', filterQuery(filter, 'group').toString()];
  const { data: counts = first.counts } = useQuery({
    queryKey: countsKey,
    queryFn: () => {
      const query = filterQuery({ ...filter, order: 'needs' }, 'group');
      return ask<BoardCounts>(`/api/board/counts?${query}`);
    },
    initialData: came ? first.counts : undefined,
    placeholderData: keepPreviousData,
  });
  const countAnew = useSpaced(
    () => void client.invalidateQueries({ queryKey: ['board-counts'] }),
    COUNT_EVERY_MILLISECONDS,
  );

  useChangedVideos((videoIds) => {
    countAnew();
    void client.invalidateQueries({
      predicate: ({ queryKey: [kind, id] }) => kind === 'missing' && videoIds.includes(String(id)),
    });
    if (videoIds.length > MOST_AT_ONCE) return void client.invalidateQueries({ queryKey: ['board'] });
    const key = newest.current;
    void ask<BoardView>(`/api/board?${asked}&ids=${videoIds.join(',')}&most=${MOST_AT_ONCE}`).then(
      ({ rows }) => client.setQueryData<BoardView>(key, (now) => now && withChanged(now, videoIds, rows, filter.order)),
      // The line is gone: everything is read when it is back.
      () => undefined,
    );
  });

  const reading = useRef(false);
  const readMore = async () => {
    const last = data.rows.at(-1);
    if (!data.more || !last || reading.current || isPlaceholderData) return;
    reading.current = true;
    const after = JSON.stringify({ id: last.videoId, group: last.group, title: last.title });
    await ask<BoardView>(`/api/board?${asked}&after=${encodeURIComponent(after)}&most=${NEXT_ROWS}`).then(
      (next) => client.setQueryData<BoardView>(queryKey, (now) => now && withMore(now, next)),
      () => undefined,
    );
    reading.current = false;
  };
  return { board: data, counts, readMore };
}

/** What keeps the drops of one video from being sent; undefined until that is known. */
export function useMissing(videoId: string, wanted: boolean): Record<string, number> | undefined {
  const { data } = useQuery({
    queryKey: ['missing', videoId],
    queryFn: () => missingOf(videoId),
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data;
}

let gathered: { ids: string[]; answer: Promise<BoardMissing> } | undefined;

/** Rows that come into view together ask together. */
async function missingOf(videoId: string): Promise<Record<string, number>> {
  if (!gathered || gathered.ids.length >= 30) {
    const ids: string[] = [];
    const answer = new Promise<void>((resolve) => setTimeout(resolve, 30)).then(() => {
      if (gathered?.ids === ids) gathered = undefined;
      return ask<BoardMissing>(`/api/board/missing?ids=${ids.join(',')}`);
    });
    gathered = { ids, answer };
  }
  const { ids, answer } = gathered;
  ids.push(videoId);
  return (await answer)[videoId] ?? {};
}

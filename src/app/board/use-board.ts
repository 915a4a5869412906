'use client';

import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import type { BoardCounts, BoardMissing, BoardView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { useChangedVideos } from '@/ui/changed-videos';
import { type BoardFilter, choiceOf, filterQuery, rankOn, withChanged, withMore } from './board-rows';

/** Changes of so many videos at once are read as the page is: anew. */
const MOST_AT_ONCE = 100;
/** As many rows as are there are read anew, up to so many. */
const MOST_READ_ANEW = 400;
/** Whoever scrolls goes on scrolling. */
const NEXT_ROWS = 60;
/** Counting takes the database a look at every video, so it is not done with every byte that moves. */
const COUNT_EVERY_MILLISECONDS = 2000;

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
  const countsKey = ['board-counts', filterQuery(choiceOf(filter), 'group').toString()];
  const { data: counts = first.counts } = useQuery({
    queryKey: countsKey,
    queryFn: () => {
      const query = filterQuery(choiceOf(filter), 'group');
      return ask<BoardCounts>(`/api/board/counts?${query}`);
    },
    initialData: came ? first.counts : undefined,
    placeholderData: keepPreviousData,
  });
  const countAnew = useSpaced(() => {
    // A page that nobody looks at is counted when somebody does.
    const refetchType = document.visibilityState === 'hidden' ? 'none' : 'active';
    void client.invalidateQueries({ queryKey: ['board-counts'], refetchType });
  }, COUNT_EVERY_MILLISECONDS);

  const pending = useRef(new Set<string>());
  const asking = useRef(false);
  // One answer after the other, so that an older one never comes last.
  const readChanged = async (): Promise<void> => {
    const ids = [...pending.current];
    if (asking.current || ids.length === 0) return;
    pending.current.clear();
    asking.current = true;
    try {
      if (ids.length > MOST_AT_ONCE) return await client.invalidateQueries({ queryKey: ['board'] });
      const { rows } = await ask<BoardView>(`/api/board?${asked}&ids=${ids.join(',')}&most=${MOST_AT_ONCE}`);
      client.setQueryData<BoardView>(queryKey, (now) => now && withChanged(now, ids, rows, filter));
    } catch {
      // What these videos are now is not known; the page is read anew, as soon as the line is there.
      void client.invalidateQueries({ queryKey: ['board'] });
    } finally {
      asking.current = false;
      void newestRead.current();
    }
  };
  const newestRead = useRef(readChanged);
  newestRead.current = readChanged;
  useChangedVideos((videoIds) => {
    countAnew();
    for (const id of videoIds) pending.current.add(id);
    void readChanged();
  });

  const reading = useRef(false);
  const readMore = async () => {
    const last = data.rows.at(-1);
    if (!data.more || !last || reading.current || isPlaceholderData) return;
    reading.current = true;
    const sorted = filter.order === 'channel' ? { stateRank: rankOn(last, filter.by) } : {};
    const after = JSON.stringify({ id: last.videoId, group: last.group, title: last.title, ...sorted });
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

'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useId } from 'react';
import type { BoardRow, BoardView } from '@/desk/views/views';
import { ask } from '../ask';
import { Button } from '../button';
import { useChangedVideos } from '../changed-videos';
import { CHOOSE_SMALL, Choose } from '../choose';
import { DraftInput } from '../fields/draft-input';
import { SMALL_FIELD } from '../fields/field-row';
import { useActs } from '../saving/use-acts';
import { useDraft } from '../saving/use-draft';
import { useArrivals } from './arrivals';

const MOST_SHOWN = 100;

/** Videos that came in together: their titles, series and channels, to be checked while their files arrive. */
export function JustAdded() {
  const { added, putAway } = useArrivals();
  const client = useQueryClient();
  const ids = added.slice(0, MOST_SHOWN);
  const { data } = useQuery({
    queryKey: ['just added', ...ids],
    queryFn: () => ask<BoardView>(`/api/board?order=newest&ids=${ids.join(',')}&most=${MOST_SHOWN}`),
    enabled: ids.length > 0,
  });
  useChangedVideos((changed) => {
    if (changed.some((id) => added.includes(id))) void client.invalidateQueries({ queryKey: ['just added'] });
  });
  if (ids.length === 0 || !data) return null;
  // In the order in which they were dropped.
  const rows = [...data.rows].sort((a, b) => (a.videoId < b.videoId ? -1 : 1));
  return (
    <section
      aria-label="Just added"
      className="enamel fixed inset-x-3 bottom-3 z-30 mx-auto flex max-h-[60vh] max-w-[860px] flex-col shadow-xl"
    >
      <header className="flex items-center gap-3 border-line border-b px-4 py-2.5">
        <h2>{added.length} videos added</h2>
        <span className="text-[13px] text-soft max-sm:hidden">Check title and series while they arrive.</span>
        <Button className="ml-auto" onClick={putAway}>
          Done
        </Button>
      </header>
      <ul className="min-h-0 overflow-y-auto">
        {rows.map((row) => (
          <Row key={row.videoId} row={row} view={data} />
        ))}
      </ul>
      {added.length > MOST_SHOWN && (
        <p className="px-4 py-2 text-[13px] text-soft">and {added.length - MOST_SHOWN} more, on the Board</p>
      )}
    </section>
  );
}

function Row({ row, view }: { row: BoardRow; view: BoardView }) {
  const { videoId, title, series, drops, cut } = row;
  const { save } = useActs(['just added'], videoId);
  const put = (json: object) => save(`/api/videos/${videoId}`, { method: 'PATCH', json });
  const draft = useDraft(title, (text, on) => put({ title: text, on: { title: on } }), { key: `${videoId} title` });
  const label = useId();
  const seriesId = view.series.find(({ name }) => name === series)?.id ?? '';
  const names = drops.flatMap(({ channelId }) => view.channels.find(({ id }) => id === channelId)?.name ?? []);
  return (
    <li className="grid gap-x-3 gap-y-1 border-line px-4 py-2 text-sm not-first:border-t sm:grid-cols-[minmax(0,1fr)_190px_190px]">
      <span className="min-w-0">
        <label htmlFor={label} className="block truncate text-[13px] text-soft">
          {cut?.fileName}
        </label>
        <DraftInput id={label} draft={draft} className={`${SMALL_FIELD} w-full`} />
      </span>
      <span className="self-end">
        <Choose
          label={`Series of ${title}`}
          value={seriesId}
          options={[['', 'in no series'], ...view.series.map(({ id, name }) => [id, name] as const)]}
          onChange={(next) => void put({ seriesId: next || null })}
          className={`${CHOOSE_SMALL} w-full`}
        />
      </span>
      <span className="self-center text-[13px] text-soft">
        {names.length > 0 ? new Intl.ListFormat('en').format(names) : 'no channel yet'}{' '}
        <Link href={`/videos/${videoId}`} className="textlink">
          Open
        </Link>
      </span>
    </li>
  );
}

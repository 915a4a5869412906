'use client';

import { useQuery } from '@tanstack/react-query';
import { type DragEvent, useMemo, useState } from 'react';
import { BOARD_GROUPS, type BoardGroup } from '@/core/drop';
import type { BoardRow, BoardView } from '@/desk/look/views';
import { useArrivals } from '@/ui/arrivals/arrivals';
import { droppedFiles } from '@/ui/arrivals/dropped-files';
import { ask } from '@/ui/ask';
import { headline, underline } from './headline';
import { VideoRow } from './video-row';

const GROUPS: Record<BoardGroup, { name: string; says: string }> = {
  'needs you': { name: 'Needs you', says: 'a person has to settle these' },
  'on the way': { name: 'On the way', says: '' },
  waiting: { name: 'Waiting for your word', says: 'proofed and held' },
  'on the desk': { name: 'On the desk', says: 'not sent yet' },
  'live lately': { name: 'Live lately', says: '' },
};

/** Home: videos down, channels across, in each crossing where the drop stands. */
export function Board({ first }: { first: BoardView }) {
  const { data } = useQuery({ queryKey: ['board'], queryFn: () => ask<BoardView>('/api/board'), initialData: first });
  const { arrivals, unheard, bring } = useArrivals();
  const [over, setOver] = useState(false);
  const [find, setFind] = useState('');
  const groups = useMemo(() => grouped(data.rows, find), [data.rows, find]);
  const drop = async (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const files = await droppedFiles(event.nativeEvent);
    if (files.length > 0) await bring(files);
  };
  // A file comes from this page for as long as it is open; what is on its way to a site needs no page.
  const says = (group: BoardGroup) => {
    if (group !== 'on the way') return GROUPS[group].says;
    return arrivals.size > 0 ? 'keep this page open until the files have arrived' : 'you can close this page';
  };
  return (
    <main
      className={`min-h-[calc(100vh-56px)] px-4 py-5 sm:px-7 ${over ? 'bg-copper-wash' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <div className="mb-3.5 flex flex-wrap items-end gap-x-6 gap-y-2">
        <h1>{headline(data.rows)}</h1>
        <p className="text-soft">{underline(data.rows, [...arrivals.values()])}</p>
        {unheard > 0 && <p role="status">{unheard} more wait for Kettle Drop to answer</p>}
        <input
          type="search"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          placeholder="Find a video"
          aria-label="Find a video by its title"
          className="ml-auto w-full rounded-full border border-line bg-card px-4 py-1.5 sm:w-56"
        />
      </div>
      {data.rows.length === 0 ? (
        <Empty />
      ) : (
        <div className="enamel overflow-x-auto">
          <table className="w-full border-collapse text-left max-sm:block sm:table-fixed">
            <thead className="max-sm:sr-only">
              <tr className="border-rim border-b-[1.5px]">
                <th scope="col" className="w-[290px] px-3.5 py-2 text-sm">
                  Video
                </th>
                {data.channels.map((channel) => (
                  <th key={channel.id} scope="col" className="w-[154px] px-2.5 py-2 text-sm leading-snug">
                    {channel.name}
                    <span className="block font-normal text-[13px] text-soft">
                      {channel.siteName}
                      {!channel.connected && ', not connected'}
                    </span>
                  </th>
                ))}
              </tr>
            </thead>
            {groups.map(([group, rows]) => (
              <tbody key={group} className="max-sm:block">
                <tr className="max-sm:block">
                  <th
                    scope="rowgroup"
                    colSpan={data.channels.length + 1}
                    className="bg-sunk px-3.5 py-1.5 max-sm:block"
                  >
                    <span className="font-display font-semibold text-sm">{GROUPS[group].name}</span>{' '}
                    <span className="ml-1 font-normal text-[13px] text-soft">{says(group)}</span>
                  </th>
                </tr>
                {rows.map((row) => (
                  <VideoRow
                    key={row.videoId}
                    row={row}
                    channels={data.channels}
                    arrival={arrivals.get((row.betterCut ?? row.cut)?.id ?? '')}
                  />
                ))}
              </tbody>
            ))}
          </table>
          {groups.length === 0 && <p className="p-6 text-soft">No video is called anything like “{find}”.</p>}
        </div>
      )}
      <p className="mt-3 text-[13px] text-soft">Drop finished files anywhere on the Board to bring them in.</p>
    </main>
  );
}

function grouped(rows: BoardRow[], find: string): [BoardGroup, BoardRow[]][] {
  const fits = rows.filter((row) => row.title.toLocaleLowerCase().includes(find.trim().toLocaleLowerCase()));
  return BOARD_GROUPS.map((group): [BoardGroup, BoardRow[]] => [
    group,
    fits.filter((row) => row.group === group),
  ]).filter(([, own]) => own.length > 0);
}

function Empty() {
  return (
    <section className="enamel px-8 py-14 text-center">
      <h2 className="mb-2 text-xl">Nothing is on the Board yet</h2>
      <p className="mx-auto max-w-[52ch] text-soft">
        Drop a finished file here, or press “Bring a cut”. It starts to arrive at once, and its Sheet opens so that you
        can write the words meanwhile.
      </p>
    </section>
  );
}

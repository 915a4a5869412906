'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import Link from 'next/link';
import type { NoticeKind } from '@/core/notices';
import type { NoticesView } from '@/desk/views/look-at-notices';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { Moment } from '@/ui/moment';
import { useActs } from '@/ui/saving/use-acts';

const CONCERNS = ['notices'] as const;

const SIGNS: Record<NoticeKind, { sign: string; look: string; says: string }> = {
  'needs you': { sign: '▲', look: 'text-snag', says: 'needs you' },
  live: { sign: '●', look: 'text-live', says: 'is live' },
  missed: { sign: '▲', look: 'text-snag', says: 'did not open in time' },
  changed: { sign: '○', look: 'text-held', says: 'was changed there' },
  done: { sign: '●', look: 'text-live', says: 'is done' },
};

/** What was told, the newest first, with what nobody has seen yet marked. */
export function NoticeList() {
  const { data, fetchNextPage, hasNextPage } = useInfiniteQuery({
    queryKey: CONCERNS,
    queryFn: ({ pageParam }) => ask<NoticesView>(`/api/notices${pageParam ? `?before=${pageParam}` : ''}`),
    initialPageParam: 0,
    getNextPageParam: ({ notices, more }) => (more ? notices.at(-1)?.id : undefined),
  });
  const { act } = useActs(CONCERNS);
  const pages = data?.pages ?? [];
  const notices = pages.flatMap((page) => page.notices);
  const unseen = pages[0]?.unseen ?? 0;
  const [newest] = notices;
  return (
    <section aria-label="What happened" className="enamel overflow-hidden">
      <div className="flex flex-wrap items-center gap-x-3 border-line border-b px-4 py-2.5">
        <h2>What happened</h2>
        <span className="text-[13px] text-soft">{unseen > 0 ? `${unseen} new` : 'nothing new'}</span>
        {unseen > 0 && newest && (
          <Button
            look="plain"
            className="ml-auto"
            onClick={() => void act('/api/notices/seen', { method: 'POST', json: { upTo: newest.id } })}
          >
            Mark all as seen
          </Button>
        )}
      </div>
      {data && notices.length === 0 && (
        <p className="px-4 py-6 text-soft">
          Nothing yet. What needs you, what goes live, what misses its time, what somebody changes at a site and what is
          done with many videos is told here.
        </p>
      )}
      <ul>
        {notices.map(({ id, kind, at, video, count, channel, site, says, leadsTo, seen }) => (
          <li
            key={id}
            className={`border-line border-t px-4 py-2.5 text-sm first:border-t-0 ${seen ? '' : 'bg-held-wash'}`}
          >
            <p className="flex flex-wrap items-baseline gap-x-2">
              <b className={`font-semibold ${SIGNS[kind].look}`}>
                <span aria-hidden>{SIGNS[kind].sign}</span> {SIGNS[kind].says}
              </b>
              <Link href={leadsTo} className="textlink font-semibold [overflow-wrap:anywhere]">
                {video}
              </Link>
              {count > 1 && <span>and {(count - 1).toLocaleString('en')} more</span>}
              {channel && (
                <span className="text-soft">
                  {channel}, {site}
                </span>
              )}
              <span className="ml-auto text-[13px] text-soft tabular-nums">
                {!seen && <b className="text-held">new · </b>}
                <Moment at={at} />
              </span>
            </p>
            <p className="mt-0.5 [overflow-wrap:anywhere]">{says}</p>
          </li>
        ))}
      </ul>
      {hasNextPage && (
        <p className="border-line border-t px-4 py-2.5">
          <Button look="plain" onClick={() => void fetchNextPage()}>
            Show older ones
          </Button>
        </p>
      )}
    </section>
  );
}

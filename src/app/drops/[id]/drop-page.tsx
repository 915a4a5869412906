'use client';

import Link from 'next/link';
import type { DropAction } from '@/desk/actions/act-on-drop';
import type { DropPageView } from '@/desk/views/drop-page';
import { ChangeList } from '@/ui/drop/change-list';
import { DropActions } from '@/ui/drop/drop-actions';
import { DropSays } from '@/ui/drop/drop-says';
import { History } from '@/ui/drop/history';
import { useZone } from '@/ui/moment';
import { Differences } from './differences';
import { FormerWords } from './former-words';
import { Matches } from './matches';
import { NotTaken } from './not-taken';
import { Part } from './part';
import { Progress } from './progress';
import { ReadLast } from './read-last';
import { Requests } from './requests';
import { Reviews } from './reviews';
import { Share } from './share';
import { StopLine } from './stop-line';
import { type DropHandle, useDrop } from './use-drop';

/** One video on one channel: where it stands, what waits for a person, and everything that was done on the way. */
export function DropPage({ first }: { first: DropPageView }) {
  const handle = useDrop(first);
  const { view } = handle;
  const { channel, video } = view;
  return (
    <main className="mx-auto grid max-w-[1180px] grid-cols-[minmax(0,1fr)] gap-3 px-4 py-5 sm:px-7">
      <header className="flex flex-wrap items-baseline gap-x-3 gap-y-1 [overflow-wrap:anywhere]">
        <h1>{video.title || 'Without a title'}</h1>
        <span className="text-soft">
          on {channel.name}, {channel.siteName}
        </span>
        <Link href={`/videos/${video.id}`} className="textlink ml-auto text-sm">
          All about this video
        </Link>
      </header>
      <Standing handle={handle} />
      <Matches handle={handle} />
      <NotTaken handle={handle} />
      <Differences handle={handle} />
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-3 lg:grid-cols-[minmax(0,1fr)_360px]">
        <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
          <Progress view={view} />
          <Reviews view={view} />
          <FormerWords handle={handle} />
          <Requests view={view} />
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
          <Share view={view} />
          <Part name="History">
            <History channels={[channel]} />
          </Part>
        </div>
      </div>
    </main>
  );
}

/** The steps with their times, where it stands now, and what can be done. */
function Standing({ handle }: { handle: DropHandle }) {
  const zone = useZone();
  const { channel } = handle.view;
  const { drop } = channel;
  if (!drop || drop.state === 'draft') {
    return (
      <p className="enamel px-4 py-3.5">
        It has not been sent yet. Send it from{' '}
        <Link href={`/videos/${handle.view.video.id}`} className="textlink">
          its page
        </Link>
        .
      </p>
    );
  }
  // What differs, and matches, have ways on of their own below; the first of the one is to try again.
  const { differences, matches } = handle.view;
  const below: DropAction[] = [
    ...(differences.length > 0 || matches.some(({ open }) => open) ? (['accept'] as const) : []),
    ...(drop.snag?.kind === 'difference' && differences.length > 0 ? (['try again'] as const) : []),
  ];
  return (
    <section
      aria-label="Where it stands"
      className={`enamel grid gap-3 px-4 py-3.5 text-sm ${drop.snag ? 'bg-snag-wash' : ''}`}
    >
      <StopLine view={handle.view} />
      <p className="[overflow-wrap:anywhere]">
        <DropSays drop={drop} zone={zone} />
        {drop.snag && below.length === 0 && <span className="block text-[13px]">{drop.snag.remedy}.</span>}
      </p>
      {drop.replacing && <p>The video there stays as it is until the new file is checked.</p>}
      <ReadLast handle={handle} />
      <ChangeList changes={channel.changes} />
      <DropActions channel={channel} drop={drop} act={handle.act} without={below} />
    </section>
  );
}

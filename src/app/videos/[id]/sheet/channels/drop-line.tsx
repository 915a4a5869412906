'use client';

import Link from 'next/link';
import type { SnagKind } from '@/core/drop';
import type { SheetChannel } from '@/desk/views/views';
import { CopyLink } from '@/ui/copy-link';
import { ChangeList } from '@/ui/drop/change-list';
import { DropActions } from '@/ui/drop/drop-actions';
import { DropSays } from '@/ui/drop/drop-says';
import { dropWords, overdueWords } from '@/ui/drop-words';
import { Meter } from '@/ui/meter';
import { useZone } from '@/ui/moment';
import { lookOf, Stops } from '@/ui/stops';
import { VersionTimes } from '@/ui/version-times';
import { SECTION_NAMES, sectionOf, snagPlace } from '../sections/sections';
import { useSections } from '../sections/sections-provider';
import type { SheetHandle } from '../use-sheet';

type SentDrop = NonNullable<SheetChannel['drop']>;

/** Snags whose ways on stand on the page of the drop. */
const HAS_WAYS: readonly SnagKind[] = ['rights', 'difference', 'review'];

interface DropLineProps {
  channel: SheetChannel;
  drop: SentDrop;
  handle: SheetHandle;
}

/** Where a drop stands, what has changed of it since it was sent, and what can be done. */
export function DropLine({ channel, drop, handle }: DropLineProps) {
  const { goTo } = useSections();
  const zone = useZone();
  const place = drop.snag && snagPlace(drop.snag);
  const look = lookOf(drop);
  const share = drop.progress?.fraction;
  return (
    <div
      className={`mt-2 grid gap-2 [overflow-wrap:anywhere] ${look === 'snag' ? '-mx-2 rounded-lg bg-snag-wash p-2' : ''}`}
    >
      <Stops behind={drop.stops} look={look} fraction={share} />
      {look === 'moving' && share !== undefined ? (
        <Meter share={share} says={dropWords(drop, zone)} />
      ) : (
        <p>
          <DropSays drop={drop} zone={zone} />
        </p>
      )}
      <VersionTimes versions={drop.versions} />
      {drop.overdue !== undefined && (
        <p className="text-[13px]">
          <b className="text-snag">▲ </b>
          {overdueWords(drop.overdue)}
        </p>
      )}
      {drop.snag && (
        <p className="text-[13px]">
          {drop.snag.remedy}.{' '}
          {HAS_WAYS.includes(drop.snag.kind) && (
            <Link href={`/drops/${drop.id}`} className="textlink">
              See the ways on
            </Link>
          )}{' '}
          {place && (
            <button type="button" onClick={() => goTo(place)} className="textlink">
              Go to {SECTION_NAMES[sectionOf(place)].toLowerCase()}
            </button>
          )}
        </p>
      )}
      {drop.otherFile && drop.state === 'live' && (
        <p className="text-[13px]">
          <b className="text-snag">▲ </b>
          {channel.siteName} has the file from before. Send the new one, or undo it to keep the old.
        </p>
      )}
      {drop.otherFile && drop.state !== 'live' && drop.state !== 'removed' && (
        <p className="text-[13px]">
          <b className="text-snag">▲ </b>
          {channel.siteName} has the file from before. To show the new one, remove the video there and send it again; it
          gets another link. To keep the old file, undo the new one.
        </p>
      )}
      {drop.replacing && <p className="text-[13px]">The video there stays as it is until the new file is checked.</p>}
      <ChangeList changes={channel.changes} />
      {channel.layersChanged && (
        <p className="text-[13px]">Defaults or links have changed since; what was sent stays as it was.</p>
      )}
      <p className="flex flex-wrap items-center gap-x-4">
        <Link href={`/drops/${drop.id}`} className="text-[13px] text-copper hover:underline">
          Follow it
        </Link>
        {drop.link && (
          <>
            <CopyLink link={drop.link} />
            <a href={drop.link} target="_blank" rel="noreferrer" className="text-[13px] text-copper hover:underline">
              Watch page
            </a>
          </>
        )}
      </p>
      <DropActions channel={channel} drop={drop} act={(action) => handle.actOnDrop(drop.id, action)} />
    </div>
  );
}

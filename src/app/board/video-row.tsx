import Link from 'next/link';
import { useRef, useState } from 'react';
import { viewerTime } from '@/core/time';
import type { BoardDrop, BoardRow, ChannelView } from '@/desk/views/views';
import { ArrivalBar } from '@/ui/arrivals/arrival-bar';
import type { Arrival } from '@/ui/arrivals/arrivals';
import { BUTTONS } from '@/ui/button-words';
import { CopyLink } from '@/ui/copy-link';
import { tryAgainWords } from '@/ui/drop/action-words';
import { DropSays } from '@/ui/drop/drop-says';
import { overdueWords } from '@/ui/drop-words';
import { Meter } from '@/ui/meter';
import { useZone } from '@/ui/moment';
import { useActs } from '@/ui/saving/use-acts';
import { LOOK_COLOURS, lookOf, Stops, type StopsLook } from '@/ui/stops';
import { useSure } from '@/ui/sure';
import { questionBeforeAnotherLink, questionBeforeOpening } from '@/ui/sure-questions';
import { VersionTimes } from '@/ui/version-times';
import { useMissing } from './use-board';

interface RowProps {
  /** Its place among the lines of the table, by which its height is measured. */
  index: number;
  measure: (row: HTMLTableRowElement | null) => void;
  row: BoardRow;
  channels: ChannelView[];
  arrival: Arrival | undefined;
  selected: boolean;
  /** What the rows were searched for. */
  find: string;
  /** @param range also all rows from the one that was pressed before */
  onSelect: (videoId: string, range: boolean) => void;
}

/** One video with its crossings. */
export function VideoRow({ index, measure, row, channels, arrival, selected, onSelect, find }: RowProps) {
  const withShift = useRef(false);
  const missing = useMissing(
    row.videoId,
    row.drops.some(({ state }) => state === 'draft'),
  );
  return (
    <tr data-index={index} aria-rowindex={index + 2} ref={measure} className="max-sm:block">
      <td className="border-line border-t bg-card px-3.5 py-2 align-middle max-sm:block sm:sticky sm:left-0">
        <div className="flex items-center gap-2.5">
          <input
            type="checkbox"
            aria-label={`Select ${row.shownTitle || 'the video without a title'}`}
            checked={selected}
            onPointerDown={(event) => {
              withShift.current = event.shiftKey;
            }}
            onKeyDown={(event) => {
              withShift.current = event.shiftKey;
            }}
            onChange={() => onSelect(row.videoId, withShift.current)}
            className="size-5 flex-none accent-[var(--rim)]"
          />
          <Link href={`/videos/${row.videoId}`} className="group flex min-w-0 items-center gap-2.5">
            <Thumbnail pictureId={row.pictureId} />
            <span className="min-w-0">
              <b className="block font-semibold leading-snug group-hover:underline">
                {row.shownTitle || 'Without a title'}
              </b>
              <span className="text-[13px] text-soft">{aboutCut(row)}</span>
            </span>
          </Link>
        </div>
        <CutLine row={row} arrival={arrival} />
        <LedHere row={row} channels={channels} find={find} />
      </td>
      {channels.map((channel) => (
        <Crossing
          key={channel.id}
          drop={row.drops.find((drop) => drop.channelId === channel.id)}
          channel={channel}
          missing={missing}
        />
      ))}
    </tr>
  );
}

function Thumbnail({ pictureId }: { pictureId: string | undefined }) {
  const size = 'h-9 w-16 flex-none rounded-[5px]';
  if (!pictureId) return <span aria-hidden className={`${size} bg-sunk`} />;
  return <img src={`/api/pictures/${pictureId}`} alt="" loading="lazy" className={`${size} object-cover`} />;
}

function aboutCut({ cut, series }: BoardRow): string {
  if (!cut) return 'no file yet';
  if (!cut.shown) return cut.fileName;
  const { duration, width, height } = cut.shown;
  const seconds = Math.floor(duration.num / duration.den);
  return `${viewerTime(duration, seconds)} · ${series ?? `${width}×${height}`}`;
}

function CutLine({ row, arrival }: Pick<RowProps, 'row' | 'arrival'>) {
  const cut = row.betterCut ?? row.cut;
  if (arrival) {
    return (
      <div className="mt-2">
        <ArrivalBar arrival={arrival} />
      </div>
    );
  }
  if (cut?.state === 'refused') return <p className="mt-1.5 text-[13px] text-snag">▲ {cut.refusal}</p>;
  if (cut?.setAside !== undefined) {
    return (
      <p className="mt-1.5 text-[13px] text-snag">▲ The file could not be read. Open the video to try it again.</p>
    );
  }
  if (cut?.state === 'reading') {
    const share = cut.reading?.fraction;
    return (
      <p className="mt-1.5 text-[13px] text-soft">
        Being read{share === undefined ? ' …' : `, ${Math.floor(share * 100)} %`}
      </p>
    );
  }
  if (cut?.state !== 'arriving') return null;
  const share = cut.received / cut.size;
  return (
    <div className="mt-2">
      <Meter
        share={share}
        says={
          cut.stalled
            ? `▲ ${Math.floor(share * 100)} % is here, and nothing more comes. Pick the file again on its page to go on.`
            : `${Math.floor(share * 100)} % has arrived`
        }
      />
    </div>
  );
}

function Readiness({ missing }: { missing: number }) {
  return missing === 0 ? (
    <span className="text-live">● ready</span>
  ) : (
    <span className="text-snag">▲ {missing} to settle</span>
  );
}

interface CrossingProps {
  drop: BoardDrop | undefined;
  channel: ChannelView;
  missing: Record<string, number> | undefined;
}

/** Where a link that was searched for led before, with what took its place. */
function LedHere({ row, channels, find }: Pick<RowProps, 'row' | 'channels' | 'find'>) {
  const words = find.trim();
  // Any word may stand in a link; who looks for one has its slashes.
  if (!words.includes('/')) return null;
  const led = row.drops.filter(({ formerLinks }) => formerLinks.some((link) => link.includes(words)));
  return led
    .filter(({ link }) => !link?.includes(words))
    .map(({ id, channelId, link }) => (
      <p key={id} className="mt-1.5 text-[13px] text-held">
        ○ That link led here, on {channels.find((channel) => channel.id === channelId)?.name ?? 'a channel'}.{' '}
        {link ? (
          <>
            Its link now: <CopyLink link={link} />
          </>
        ) : (
          'It has no link now.'
        )}
      </p>
    ));
}

/** What an act changes is heard of like any other change. */
const NOTHING_ELSE = ['board acts'];

/** What can be done at once with one drop. */
function Acts({ drop, channel }: { drop: BoardDrop; channel: ChannelView }) {
  const { act } = useActs(NOTHING_ELSE);
  const sure = useSure();
  if (drop.actions.length === 0 && !drop.link) return null;
  const press = async (action: 'open' | 'not yet' | 'try again' | 'open again') => {
    if (action === 'open' && !(await sure(questionBeforeOpening([channel.name], drop.end)))) return;
    if (action === 'try again' && drop.linkEnds && !(await sure(questionBeforeAnotherLink(channel.siteName)))) return;
    const to = drop.closedFrom ?? 'everyone';
    if (action === 'open again' && !(await sure(questionBeforeOpening([channel.name], to)))) return;
    await act(`/api/drops/${drop.id}`, { method: 'POST', json: { action } });
  };
  return (
    <div className="mt-0.5 flex flex-wrap items-center gap-x-2.5">
      {drop.actions.includes('open') && (
        <button type="button" onClick={() => press('open')} aria-label={`Open on ${channel.name}`} className="cell-act">
          Open
        </button>
      )}
      {drop.actions.includes('not yet') && (
        <button
          type="button"
          onClick={() => press('not yet')}
          aria-label={`Do not open on ${channel.name} yet`}
          className="cell-act"
        >
          Do not open
        </button>
      )}
      {drop.actions.includes('open again') && (
        <button
          type="button"
          onClick={() => press('open again')}
          aria-label={`Open again on ${channel.name}`}
          className="cell-act"
        >
          Open again
        </button>
      )}
      {drop.actions.includes('try again') && (
        <button
          type="button"
          onClick={() => press('try again')}
          aria-label={`${tryAgainWords(drop)} on ${channel.name}`}
          className="cell-act"
        >
          {tryAgainWords(drop)}
        </button>
      )}
      {drop.link && (
        <a
          href={drop.link}
          target="_blank"
          rel="noreferrer"
          aria-label={`Watch on ${channel.name}`}
          className="cell-act"
        >
          {BUTTONS.watch}
        </a>
      )}
      {drop.link && <CopyLink link={drop.link} />}
    </div>
  );
}

/** What stands before the words of a drop that does not move, so that its state is told by shape, too. */
const SIGNS: Record<StopsLook, string> = { idle: '', moving: '', held: '‖', live: '●', snag: '▲' };

function Crossing({ drop, channel, missing }: CrossingProps) {
  const [near, setNear] = useState(false);
  const zone = useZone();
  if (!drop) return <td className="crossing max-sm:hidden" />;
  const look = lookOf(drop);
  const stops = <Stops behind={drop.stops} look={look} fraction={drop.progress?.fraction} />;
  return (
    <td className="crossing relative" onPointerEnter={() => setNear(true)} onPointerLeave={() => setNear(false)}>
      <span className="text-[13px] text-soft sm:hidden">{channel.name}</span>
      {look === 'moving' && <div className="mb-1.5">{stops}</div>}
      {look !== 'moving' && near && (
        <div className="enamel pointer-events-none absolute top-1 right-1 z-10 px-1.5 py-1 shadow-lg">
          {stops}
          <VersionTimes versions={drop.versions} />
        </div>
      )}
      <p className={`text-[13px] leading-snug ${look === 'moving' ? '' : LOOK_COLOURS[look]}`}>
        <span className="mr-2.5 line-clamp-4">
          {SIGNS[look] && <span aria-hidden>{SIGNS[look]} </span>}
          {drop.state === 'draft' ? (
            <DropSays drop={drop} zone={zone} />
          ) : (
            <Link href={`/drops/${drop.id}`} prefetch={false} className="hover:underline">
              <DropSays drop={drop} zone={zone} />
            </Link>
          )}
        </span>
        {drop.overdue !== undefined && <span className="block text-snag">▲ {overdueWords(drop.overdue)}</span>}
        {drop.state === 'draft' && missing && <Readiness missing={missing[drop.id] ?? 0} />}
      </p>
      {(look === 'moving' || look === 'held') && <VersionTimes versions={drop.versions.slice(-1)} />}
      <Acts drop={drop} channel={channel} />
    </td>
  );
}

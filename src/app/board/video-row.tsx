import Link from 'next/link';
import { viewerTime } from '@/core/time';
import type { BoardRow, ChannelView } from '@/desk/look/views';
import { ArrivalBar } from '@/ui/arrivals/arrival-bar';
import type { Arrival } from '@/ui/arrivals/arrivals';
import { CopyLink } from '@/ui/copy-link';
import { dropWords, overdueWords } from '@/ui/drop-words';
import { Meter } from '@/ui/meter';
import { lookOf, Stops } from '@/ui/stops';

interface RowProps {
  row: BoardRow;
  channels: ChannelView[];
  arrival: Arrival | undefined;
}

/** One video with its crossings. */
export function VideoRow({ row, channels, arrival }: RowProps) {
  return (
    <tr className="border-line border-t max-sm:block">
      <td className="px-3.5 py-2.5 align-middle max-sm:block">
        <Link href={`/videos/${row.videoId}`} className="group flex items-center gap-3">
          <Thumbnail pictureId={row.pictureId} />
          <span className="min-w-0">
            <b className="block font-semibold leading-snug group-hover:underline">{row.title || 'Without a title'}</b>
            <span className="text-[13px] text-soft">{aboutCut(row)}</span>
          </span>
        </Link>
        <CutLine row={row} arrival={arrival} />
      </td>
      {channels.map((channel) => (
        <Crossing key={channel.id} drop={row.drops.find((drop) => drop.channelId === channel.id)} channel={channel} />
      ))}
    </tr>
  );
}

function Thumbnail({ pictureId }: { pictureId: string | undefined }) {
  const size = 'h-[45px] w-20 flex-none rounded-[5px]';
  if (!pictureId) return <span aria-hidden className={`${size} bg-sunk`} />;
  return <img src={`/api/pictures/${pictureId}`} alt="" loading="lazy" className={`${size} object-cover`} />;
}

function aboutCut({ cut }: BoardRow): string {
  if (!cut) return 'no cut yet';
  if (!cut.facts) return cut.fileName;
  const { duration, video } = cut.facts;
  const seconds = Math.floor(duration.num / duration.den);
  return `${viewerTime(duration, seconds)} · ${video.width}×${video.height}`;
}

function CutLine({ row, arrival }: Omit<RowProps, 'channels'>) {
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

function Crossing({ drop, channel }: { drop: BoardRow['drops'][number] | undefined; channel: ChannelView }) {
  const cell =
    'border-line px-2.5 py-2.5 align-middle [overflow-wrap:anywhere] sm:border-l max-sm:block max-sm:px-3.5 max-sm:pt-0';
  if (!drop) return <td className={`${cell} max-sm:hidden`} />;
  const look = lookOf(drop);
  return (
    <td className={`${cell} ${look === 'snag' ? 'bg-snag-wash' : ''}`}>
      <span className="text-[13px] text-soft sm:hidden">{channel.name}</span>
      <Stops behind={drop.stops} look={look} fraction={drop.progress?.fraction} />
      <p className={`mt-1.5 text-[13px] leading-snug ${look === 'idle' ? 'text-soft' : ''}`}>
        <span className="mr-2.5 line-clamp-4">{dropWords(drop)}</span>
        {drop.overdue !== undefined && <span className="block text-snag">▲ {overdueWords(drop.overdue)}</span>}
        {drop.state === 'draft' && <Readiness missing={drop.missing} />}
        {drop.link && <CopyLink link={drop.link} />}
      </p>
    </td>
  );
}

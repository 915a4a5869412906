'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { mayMove } from '@/core/drop';
import type { SheetChannel } from '@/desk/views/views';
import { TickBox } from '@/ui/tick-box';
import type { SheetHandle } from '../use-sheet';
import { ChannelWords } from './channel-words';
import { DropLine } from './drop-line';
import { PlaylistPicker } from './playlist-picker';

/** Few videos have one. */
const EarlyLine = dynamic(() => import('./early-line').then((part) => part.EarlyLine));

/** One channel on the Sheet: its tick, whether the video is ready for it, and where its drop stands. */
export function ChannelCard({ channel, handle }: { channel: SheetChannel; handle: SheetHandle }) {
  const { drop } = channel;
  const sent = drop !== undefined && drop.state !== 'draft';
  // Shown at once; what follows from it comes with the answer.
  const [asked, setAsked] = useState<boolean>();
  const tick = (ticked: boolean) => {
    setAsked(ticked);
    void handle.tick(channel.id, ticked).then(() => setAsked((now) => (now === ticked ? undefined : now)));
  };
  const name = (
    <>
      <b className="font-semibold">{channel.name}</b>
      <span className="block text-[13px] text-soft">{channel.siteName}</span>
    </>
  );
  return (
    <section
      aria-label={`${channel.name} on ${channel.siteName}`}
      className="border-line border-t py-2.5 text-sm first-of-type:border-t-0"
    >
      <div className="flex items-start gap-2">
        {sent ? (
          <span className="flex-1">{name}</span>
        ) : (
          <TickBox ticked={asked ?? channel.ticked} onTick={tick} className="flex-1">
            {name}
          </TickBox>
        )}
        <Readiness channel={channel} sent={sent} />
      </div>
      {channel.early && !sent && <EarlyLine channel={channel} early={channel.early} />}
      {drop && sent && <DropLine channel={channel} drop={drop} handle={handle} />}
      {drop?.state === 'removed' && mayMove('send', drop.state) && (
        <p className="mt-1.5 text-[13px] text-soft">You can send it again.</p>
      )}
      {channel.ticked && <ChannelWords channel={channel} handle={handle} />}
      {drop && channel.groups && <PlaylistPicker channel={channel} handle={handle} />}
    </section>
  );
}

function Readiness({ channel, sent }: { channel: SheetChannel; sent: boolean }) {
  if (!channel.connected) return <span className="font-semibold text-snag">▲ not connected</span>;
  if (sent && channel.drop?.state !== 'removed') return null;
  if (!channel.ticked) return null;
  const { length } = channel.missing;
  if (length === 0) return <span className="font-semibold text-live">● ready</span>;
  return <span className="whitespace-nowrap font-semibold text-snag">▲ {length} to settle</span>;
}

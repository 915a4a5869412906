'use client';

import Link from 'next/link';
import { mayMove } from '@/core/drop';
import type { SheetChannel } from '@/desk/views';
import { Button } from '@/ui/button';
import { ChannelCard } from './channel-card';
import type { SheetHandle } from './use-sheet';

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

const sendable = ({ drop, missing, connected }: SheetChannel) =>
  drop !== undefined && mayMove('send', drop.state) && missing.length === 0 && connected;

/** Where the video goes: each channel, ready or what is missing, and how far its drop is. */
export function Rail({ handle }: { handle: SheetHandle }) {
  const { sheet, send } = handle;
  const ready = sheet.channels.filter(sendable);
  const count = ready.length === 1 ? (ready[0]?.name ?? '') : `${NUMBERS[ready.length] ?? ready.length} channels`;
  const arrived = sheet.cut?.state === 'ready';
  return (
    <section aria-label="Where it goes" className="enamel px-4 py-3.5">
      <h2 className="mb-1">Where it goes</h2>
      {sheet.channels.length === 0 && (
        <p className="py-2 text-soft">
          No channel is connected yet.{' '}
          <Link href="/channels" className="textlink">
            Connect one
          </Link>
        </p>
      )}
      {sheet.channels.map((channel) => (
        <ChannelCard key={channel.id} channel={channel} handle={handle} />
      ))}
      {ready.length > 0 && (
        <>
          <Button look="press" className="mt-2.5 w-full" onClick={send}>
            Send to {count}
          </Button>
          {!arrived && <p className="mt-1.5 text-[13px] text-soft">It goes on by itself when the cut has arrived.</p>}
        </>
      )}
    </section>
  );
}

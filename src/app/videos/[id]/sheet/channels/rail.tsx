'use client';

import Link from 'next/link';
import { useState } from 'react';
import { mayMove } from '@/core/drop';
import type { SheetChannel } from '@/desk/look/views';
import { Button } from '@/ui/button';
import { useUnsaved } from '@/ui/saving/unsaved';
import { useSure } from '@/ui/sure';
import { useTimeLine } from '../time-line/time-line-state';
import type { SheetHandle } from '../use-sheet';
import { ChannelCard, goTo } from './channel-card';
import { questionBeforeChanges } from './drop-questions';

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

const countWords = (channels: readonly SheetChannel[]) =>
  channels.length === 1 ? (channels[0]?.name ?? '') : `${NUMBERS[channels.length] ?? channels.length} channels`;

const sendable = ({ drop, missing, connected }: SheetChannel) =>
  drop !== undefined && mayMove('send', drop.state) && missing.length === 0 && connected;

const revisable = ({ drop, missing, connected, changes }: SheetChannel) =>
  changes.length > 0 && missing.length === 0 && connected && drop !== undefined && mayMove('revise', drop.state);

const opensByItself = ({ values }: SheetChannel) =>
  values.privacy.value === 'everyone' && values.release.value === 'by itself';

const names = (channels: readonly SheetChannel[]) => new Intl.ListFormat('en').format(channels.map(({ name }) => name));

/** Where the video goes: each channel, ready or what is missing, and how far its drop is. */
export function Rail({ handle }: { handle: SheetHandle }) {
  const { sheet, send, sendChanges } = handle;
  const sure = useSure();
  const { waiting } = useUnsaved();
  const [sending, setSending] = useState(false);
  const ready = sheet.channels.filter(sendable);
  const changed = sheet.channels.filter(revisable);
  const arrived = sheet.cut?.state === 'ready';
  const opening = ready.filter(opensByItself);
  const during = async (work: () => Promise<unknown>) => {
    setSending(true);
    await work().finally(() => setSending(false));
  };
  const revise = async () => {
    const question = questionBeforeChanges(changed);
    if (question && !(await sure(question))) return;
    await during(sendChanges);
  };
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
      <ChaptersNotChosen handle={handle} />
      {sheet.channels.map((channel) => (
        <ChannelCard key={channel.id} channel={channel} handle={handle} />
      ))}
      {changed.length > 1 && (
        <Button look="quiet" className="mt-2.5 w-full" onClick={() => void revise()}>
          Send the changes to {countWords(changed)}
        </Button>
      )}
      {ready.length > 0 && (
        <>
          <Button look="press" className="mt-2.5 w-full" onClick={() => void during(send)}>
            Send to {countWords(ready)}
          </Button>
          {opening.length > 0 && (
            <p className="mt-1.5 text-[13px] text-soft">
              Opens by itself to everyone on {names(opening)}, once it is read back and is as meant.
            </p>
          )}
          {!arrived && <p className="mt-1.5 text-[13px] text-soft">It goes on by itself when the file has arrived.</p>}
        </>
      )}
      {sending && waiting > 0 && (
        <p role="status" className="mt-1.5 text-[13px] text-snag">
          ▲ It is sent as soon as everything on this page is saved.
        </p>
      )}
    </section>
  );
}

/** Says that the video has markers and nobody has said which of them are for viewers. */
function ChaptersNotChosen({ handle }: { handle: SheetHandle }) {
  const { markers } = useTimeLine();
  const takes = handle.sheet.channels.some(({ ticked, rules }) => ticked && rules.chapters);
  if (!takes || markers.length === 0 || handle.sheet.chaptersChosen) return null;
  if (markers.some(({ kind }) => kind === 'chapter')) return null;
  return (
    <p className="mb-1 rounded-lg bg-held-wash px-3 py-2 text-[13px]">
      <b className="text-held">No chapters are chosen:</b> none of the {markers.length} markers is for viewers yet.{' '}
      <button type="button" className="textlink" onClick={() => goTo('chapters')}>
        Choose
      </button>
    </p>
  );
}

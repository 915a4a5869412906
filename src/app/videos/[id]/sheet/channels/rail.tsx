'use client';

import Link from 'next/link';
import { useState } from 'react';
import { mayMove, openEnd } from '@/core/drop';
import { openWarnings } from '@/core/preflight';
import type { SheetChannel } from '@/desk/views/views';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { questionBeforeChanges } from '@/ui/drop/questions';
import { useUnsaved } from '@/ui/saving/unsaved';
import { useSure } from '@/ui/sure';
import { questionBeforeOpening } from '@/ui/sure-questions';
import { type Finding, findingsOf } from '../sections/section-states';
import { useSections } from '../sections/sections-provider';
import { RAIL_ID, SEND_ID } from '../sheet-keys';
import { useTimeLine } from '../time-line/time-line-state';
import type { SheetHandle } from '../use-sheet';
import { ChannelCard } from './channel-card';

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
  const { goTo, allOpen } = useSections();
  const [sending, setSending] = useState(false);
  const [adding, setAdding] = useState<boolean>();
  const ready = sheet.channels.filter(sendable);
  const changed = sheet.channels.filter(revisable);
  const openable = sheet.channels.filter(({ drop }) => drop?.actions.includes('open'));
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
  const open = async () => {
    // The widest is what has to be said.
    const ends = openable.map(({ values }) => openEnd(values.privacy.value));
    const widest = (['everyone', 'link', 'password'] as const).find((end) => ends.includes(end)) ?? 'everyone';
    if (
      !(await sure(
        questionBeforeOpening(
          openable.map(({ name }) => name),
          widest,
        ),
      ))
    )
      return;
    for (const { drop } of openable) if (drop) await handle.actOnDrop(drop.id, 'open');
  };
  const going = sheet.channels.filter(({ ticked, drop }) => ticked || (drop && drop.state !== 'draft'));
  const others = sheet.channels.filter((channel) => !going.includes(channel));
  const findings = findingsOf(sheet);
  return (
    <section
      id={RAIL_ID}
      aria-label="Where it goes"
      tabIndex={-1}
      className="enamel flex min-h-0 flex-col overflow-hidden lg:max-h-full"
    >
      <div className="min-h-0 overflow-y-auto px-4 py-3.5">
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
        {findings.length > 0 && <ToSettle findings={findings} handle={handle} />}
        <FileWarnings handle={handle} />
        {going.map((channel) => (
          <ChannelCard key={channel.id} channel={channel} handle={handle} />
        ))}
        <Spread channels={going} />
        {others.length > 0 && (
          <details
            open={adding ?? (allOpen || going.length === 0)}
            onToggle={(event) => setAdding(event.currentTarget.open)}
            className="border-line not-first:border-t pt-2.5 text-sm"
          >
            <summary className="cursor-pointer">
              <span className="text-soft">{fewNames(others)}: </span>
              <span className="text-copper">{others.length === 1 ? 'add this channel' : 'add a channel'}</span>
            </summary>
            <div className="mt-1.5">
              {others.map((channel) => (
                <ChannelCard key={channel.id} channel={channel} handle={handle} />
              ))}
            </div>
          </details>
        )}
      </div>
      {(openable.length > 1 || changed.length > 1 || ready.length > 0 || findings.length > 0) && (
        <div
          data-bar="bottom when narrow"
          className="border-line border-t bg-card px-4 py-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-20 max-lg:shadow-[0_-4px_16px_#0003]"
        >
          {openable.length > 1 && (
            <Button look="press" className="w-full not-last:mb-2" onClick={() => void during(open)}>
              Open on {countWords(openable)}
            </Button>
          )}
          {changed.length > 1 && (
            <Button look="quiet" className="w-full" onClick={() => void revise()}>
              Send the changes to {countWords(changed)}
            </Button>
          )}
          {ready.length > 0 && (
            <>
              <Button id={SEND_ID} look="press" className="w-full not-first:mt-2" onClick={() => void during(send)}>
                Send to {countWords(ready)}
              </Button>
              {opening.length > 0 && (
                <p className="mt-1.5 text-[13px] text-soft max-lg:hidden">
                  Opens to everyone on {names(opening)} once it is checked.
                </p>
              )}
              {!arrived && (
                <p className="mt-1.5 text-[13px] text-soft">It goes on by itself when the file has arrived.</p>
              )}
            </>
          )}
          {ready.length === 0 && changed.length < 2 && findings[0] && (
            <button type="button" onClick={() => findings[0] && goTo(findings[0].place)} className="textlink text-sm">
              {findings.length === 1 ? '1 thing to settle first' : `${findings.length} things to settle first`}
            </button>
          )}
          {sending && waiting > 0 && (
            <p role="status" className="mt-1.5 text-[13px] text-snag">
              ▲ It is sent as soon as everything on this page is saved.
            </p>
          )}
        </div>
      )}
    </section>
  );
}

const FEW = 2;

/** “Tide Notes, Quay School and 3 more”. */
function fewNames(channels: readonly SheetChannel[]): string {
  const shown = channels.length > FEW + 1 ? channels.slice(0, FEW) : channels;
  const more = channels.length - shown.length;
  return new Intl.ListFormat('en').format([...shown.map(({ name }) => name), ...(more > 0 ? [`${more} more`] : [])]);
}

/** What there is to settle: each thing once, with the channels that it holds for; a press leads to its place. */
function ToSettle({ findings, handle }: { findings: Finding[]; handle: SheetHandle }) {
  const { sheet, save } = handle;
  const { goTo } = useSections();
  return (
    <section aria-label="What to settle" className="mb-2.5 rounded-lg bg-snag-wash px-3 py-2">
      <ul className="grid gap-1.5 text-[13px]">
        {findings.map(({ place, what, blank, channels }) => (
          <li
            key={what}
            className="grid grid-cols-[14px_minmax(0,1fr)] items-baseline gap-x-1 [overflow-wrap:anywhere]"
          >
            <b className="text-snag">▲</b>
            <button type="button" onClick={() => goTo(place)} className="textlink">
              {what}
            </button>
            <span className="col-start-2 text-soft">{fewNames(channels)}</span>
            {blank !== undefined && (
              <button
                type="button"
                onClick={() => void save({ meantBlanks: [...sheet.meantBlanks, blank] })}
                className="textlink col-start-2"
              >
                {BUTTONS.intended}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was found in the file and stops nothing; a press leads to the file. */
function FileWarnings({ handle }: { handle: SheetHandle }) {
  const { goTo } = useSections();
  const warnings = openWarnings(handle.sheet);
  const looking = handle.sheet.measured === 'waiting';
  if (warnings.length === 0 && !looking) return null;
  return (
    <section aria-label="To look at" className="mb-2.5 rounded-lg bg-held-wash px-3 py-2">
      <p className="text-[13px] text-soft">
        {warnings.length > 0 ? 'Look at the file before you send it:' : 'The file is still being looked over.'}
      </p>
      <ul className="grid gap-1 text-[13px] empty:hidden">
        {warnings.map(({ rule, what }) => (
          <li key={rule} className="[overflow-wrap:anywhere]">
            <button type="button" onClick={() => goTo('cut')} className="textlink">
              {what}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Says that the video has markers and nobody has said which of them are for viewers. */
function ChaptersNotChosen({ handle }: { handle: SheetHandle }) {
  const { markers } = useTimeLine();
  const { goTo } = useSections();
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

/** How far apart those opened that were to open together. */
function Spread({ channels }: Pick<SheetHandle['sheet'], 'channels'>) {
  const together = channels.filter(({ values, rules }) => values.release.value === 'together' && !rules.opensItself);
  const opened = together.flatMap(({ drop }) => (drop?.state === 'live' && drop.liveAt ? Date.parse(drop.liveAt) : []));
  if (opened.length < 2 || opened.length < together.length) return null;
  const seconds = (Math.max(...opened) - Math.min(...opened)) / 1000;
  return (
    <p className="border-line border-t py-2.5 text-[13px] text-soft">
      Opened together on {opened.length} channels,{' '}
      {seconds < 60 ? `within ${seconds.toFixed(2)} s` : `${Math.round(seconds / 60)} min apart`}
    </p>
  );
}

'use client';

import { useRef, useState } from 'react';
import { timeIn } from '@/core/release/in-words';
import type { TimeOffer, TimesFromFile } from '@/desk/release/times-from-file';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { FilePick } from '@/ui/file-pick';
import { useZone } from '@/ui/moment';
import { useNotices } from '@/ui/notices';
import { useActs } from '@/ui/saving/use-acts';
import { SheetDialog } from '@/ui/sheet-dialog';
import { TickBox } from '@/ui/tick-box';

/** Takes times from a calendar file: what was read is shown, and nothing is set before a person says so. */
export function TimesIn({ concerns }: { concerns: readonly unknown[] }) {
  const input = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<TimesFromFile>();
  const zone = useZone();
  const { trouble } = useNotices();
  const take = async ([file]: File[]) => {
    if (!file) return;
    try {
      setRead(
        await ask<TimesFromFile>(`/api/calendar/file?${new URLSearchParams({ zone })}`, { method: 'POST', body: file }),
      );
    } catch (error) {
      trouble(error);
    }
  };
  return (
    <>
      <Button look="plain" onClick={() => input.current?.click()}>
        Times from a file
      </Button>
      <FilePick input={input} label="Calendar file" accept=".ics,text/calendar" onPick={take} />
      {read && (
        <SheetDialog open onClose={() => setRead(undefined)} title="Times from a file" close={BUTTONS.close} wide>
          <Offers read={read} concerns={concerns} onDone={() => setRead(undefined)} />
        </SheetDialog>
      )}
    </>
  );
}

/** What is to be known of a time beside itself. */
function* besides({ set: { opensAt }, before, note }: TimeOffer, zone: string) {
  if (opensAt.zone !== zone) yield `${opensAt.wall.slice(11, 16)} in ${opensAt.zone.replaceAll('_', ' ')}`;
  if (before) yield `now ${timeIn(zone, new Date(before))}`;
  if (note) yield note;
}

function Offers({ read, concerns, onDone }: { read: TimesFromFile; concerns: readonly unknown[]; onDone: () => void }) {
  const { offers, notRead } = read;
  const times = new Map<string, number>();
  for (const { videoId } of offers) times.set(videoId, (times.get(videoId) ?? 0) + 1);
  const isTwice = ({ videoId }: TimeOffer) => (times.get(videoId) ?? 0) > 1;
  // Which of two times of a video holds is for a person to say.
  const [off, setOff] = useState<readonly number[]>(() => offers.filter(isTwice).map(({ line }) => line));
  const zone = useZone();
  const { save } = useActs(concerns);
  const { say } = useNotices();
  const chosen = offers.filter(({ line }) => !off.includes(line));
  const turn = ({ line, videoId }: TimeOffer, on: boolean) =>
    setOff((all) => {
      const others = offers.filter((each) => each.videoId === videoId && each.line !== line).map((each) => each.line);
      return on ? [...new Set([...all, ...others])].filter((each) => each !== line) : [...all, line];
    });
  const set = async () => {
    let kept = 0;
    for (const { videoId, set: json } of chosen) {
      if ((await save(`/api/videos/${videoId}`, { method: 'PATCH', json })) === 'saved') kept += 1;
    }
    say(
      `${kept} ${kept === 1 ? 'video opens' : 'videos open'} at the time of the file. Each can be undone on its page.`,
    );
    onDone();
  };
  return (
    <div className="grid gap-3 text-sm">
      {offers.length === 0 && <p>No event in this file is for a video that is here.</p>}
      <ul className="grid gap-1.5">
        {offers.map((offer) => (
          <li key={offer.line}>
            <TickBox ticked={!off.includes(offer.line)} onTick={(on) => turn(offer, on)}>
              <b className="font-semibold">{offer.video || 'Without a title'}</b> opens{' '}
              {timeIn(zone, new Date(offer.at))}
              <span className="text-soft">{[...besides(offer, zone)].map((each) => ` · ${each}`)}</span>
              {isTwice(offer) && (
                <span>
                  {' '}
                  <b className="text-snag">▲ </b>
                  {times.get(offer.videoId)} times for this video are in the file: tick the one you mean
                </span>
              )}
            </TickBox>
          </li>
        ))}
      </ul>
      {notRead.length > 0 && (
        <section aria-label="Not taken">
          <h3>Not taken</h3>
          <ul className="grid gap-0.5 text-[13px]">
            {notRead.map(({ line, title, why }) => (
              <li key={line}>
                Line {line}: {title ? `“${title}”, ` : ''}
                {why}
              </li>
            ))}
          </ul>
        </section>
      )}
      {chosen.length > 0 && (
        <Button look="press" className="justify-self-start" onClick={() => void set()}>
          {chosen.length === 1 ? 'Set this time' : `Set these ${chosen.length} times`}
        </Button>
      )}
    </div>
  );
}

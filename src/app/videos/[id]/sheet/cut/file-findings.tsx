'use client';

import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { spanName } from '@/core/delivery';
import { type Finding, isPutRight, reasonFor, remedyOffer } from '@/core/preflight';
import { floor, toNumber, viewerTime } from '@/core/time';
import type { CutView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { SMALL_FIELD } from '@/ui/fields/field-row';
import { PopButton } from '@/ui/pop-button';
import { useSections } from '../sections/sections-provider';
import { usePlayer } from '../time-line/player-state';
import type { SheetHandle } from '../use-sheet';
import { RemedyButton } from './remedy-button';

/** What was found in the file: each with why it matters and what to do, and where it is. */
export function FileFindings({ handle }: { handle: SheetHandle }) {
  const { sheet } = handle;
  if (sheet.fileFindings.length === 0 && sheet.measured === 'ready') {
    return <p className="mt-2.5 text-live text-sm">● Nothing to say against the file</p>;
  }
  return (
    <section aria-label="Found in the file" className="mt-3">
      <LookedOver handle={handle} />
      <ul className="grid gap-2 text-sm">
        {sheet.fileFindings.map((finding) => (
          <Found key={`${finding.rule} ${finding.what}`} finding={finding} handle={handle} />
        ))}
      </ul>
    </section>
  );
}

/** How far the file is looked over, and what can be done about that. */
function LookedOver({ handle }: { handle: SheetHandle }) {
  const { cut, measured } = handle.sheet;
  const at = `/api/cuts/${cut?.id}`;
  const { data: progress } = useQuery({
    queryKey: ['measuring', cut?.id],
    queryFn: () => ask<Partial<NonNullable<CutView['reading']>>>(`${at}/measuring`),
    enabled: measured === 'waiting',
    refetchInterval: 1500,
  });
  if (measured === 'ready' || measured === undefined) return null;
  const { fraction, secondsLeft } = progress ?? {};
  const share = fraction === undefined ? '' : `, ${Math.floor(fraction * 100)} %`;
  const left = secondsLeft === undefined ? '' : ` · ${spanName(secondsLeft)} left`;
  return (
    <p className="mb-2 flex flex-wrap items-baseline gap-x-3 text-soft text-sm">
      {measured === 'waiting' ? `The file is being looked over${share}${left} …` : 'The file was not looked over.'}
      {measured === 'waiting' ? (
        <button
          type="button"
          className="textlink"
          onClick={() => void handle.act(`${at}/measuring`, { method: 'DELETE' })}
        >
          Skip this
        </button>
      ) : (
        <button
          type="button"
          className="textlink"
          onClick={() => void handle.act(`${at}/again`, { method: 'POST', json: { kind: 'measure' } })}
        >
          Look it over
        </button>
      )}
    </p>
  );
}

function Found({ finding, handle }: { finding: Finding; handle: SheetHandle }) {
  const { sheet, save } = handle;
  const { rule, level, what, why, remedy, span } = finding;
  const reason = reasonFor(sheet, rule);
  const right = isPutRight(finding, sheet.remedies);
  const waves = level === 'warns' && reason === undefined && !right;
  const offer = right || reason !== undefined ? undefined : remedyOffer(finding);
  const others = sheet.wavedThrough.filter((waved) => waved.rule !== rule || waved.cutId !== sheet.cut?.id);
  return (
    <li className="grid grid-cols-[14px_minmax(0,1fr)] gap-x-1.5 [overflow-wrap:anywhere]">
      <b className={waves ? 'text-snag' : 'text-soft'}>{waves ? '▲' : '○'}</b>
      <div>
        <p>
          <span className={waves ? 'font-semibold' : ''}>{what}.</span> {why}{' '}
          <span className="text-soft">{right ? 'Put right in the file that goes out.' : `${remedy}.`}</span>
        </p>
        <p className="flex flex-wrap items-center gap-x-3 text-[13px]">
          {span && <GoTo seconds={toNumber(span.from)} at={viewerTime(span.from, floor(span.from))} />}
          {offer && <RemedyButton offer={offer} handle={handle} />}
          {waves && (
            <Waving
              onWave={(said) => save({ wavedThrough: [...others, { rule, cutId: sheet.cut?.id ?? '', reason: said }] })}
            />
          )}
          {reason !== undefined && (
            <>
              <span className="text-soft">You said it is meant{reason === '' ? '' : `: ${reason}`}</span>
              <button type="button" className="textlink" onClick={() => void save({ wavedThrough: others })}>
                Warn again
              </button>
            </>
          )}
        </p>
      </div>
    </li>
  );
}

/** Takes the player to a moment. */
function GoTo({ seconds, at }: { seconds: number; at: string }) {
  const player = usePlayer();
  const { goTo } = useSections();
  return (
    <button
      type="button"
      className="textlink"
      onClick={() => {
        player.seek(seconds);
        goTo('chapters');
      }}
    >
      Go to {at}
    </button>
  );
}

/** Says that a finding is meant, and why. */
function Waving({ onWave }: { onWave: (reason: string) => unknown }) {
  const [reason, setReason] = useState('');
  return (
    <PopButton
      button={{ className: 'textlink', children: BUTTONS.intended }}
      panel={{ label: 'Why it is meant', align: 'start', className: 'w-[min(340px,92vw)] p-3.5 text-sm' }}
    >
      {(close) => (
        <form
          className="grid gap-2.5"
          onSubmit={(event: FormEvent) => {
            event.preventDefault();
            void onWave(reason.trim());
            close();
          }}
        >
          <label className="grid gap-1">
            <span className="text-soft">Why? (optional; the team sees it)</span>
            <input
              value={reason}
              maxLength={500}
              onChange={(event) => setReason(event.target.value)}
              className={SMALL_FIELD}
            />
          </label>
          <Button type="submit" look="press" className="justify-self-start">
            Do not warn
          </Button>
        </form>
      )}
    </PopButton>
  );
}

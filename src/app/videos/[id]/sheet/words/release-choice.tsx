'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { Release } from '@/core/defaults';
import { openEnd } from '@/core/drop/end';
import { momentInWords } from '@/core/release/in-words';
import type { Moment } from '@/core/release/moment';
import { isTimed } from '@/core/release/opening';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { Choose } from '@/ui/choose';
import { RELEASE_CHOICES } from '@/ui/fields/choices';
import { Below } from '@/ui/fields/field-row';
import { LateField } from '@/ui/fields/hours-field';
import { useSure } from '@/ui/sure';
import { questionBeforeOpening } from '@/ui/sure-questions';
import { DiffersOn, SheetMark } from '../sheet-mark';
import type { SheetHandle } from '../use-sheet';
import { Clashes } from './clashes';
import { PlaceOffer } from './place-offer';

const OpeningTime = dynamic(() => import('@/ui/release/opening-time').then((part) => part.OpeningTime), {
  loading: () => null,
});

const listed = (names: readonly string[]) => new Intl.ListFormat('en').format(names);

/** What a first showing is, what it shows before, and where there is none. */
function showingWords({ sheet }: SheetHandle): string {
  const ticked = sheet.channels.filter((channel) => channel.ticked);
  // One that opens by itself waits for no time; what is missing says so.
  const without = ticked.filter(({ rules }) => !rules.firstShowings && !rules.opensItself).map(({ name }) => name);
  const having = ticked.filter(({ rules }) => rules.firstShowings).map(({ name }) => name);
  const what = 'People watch it together from that time on, and can talk about it.';
  const announced = `Once the time is set and it is checked, everyone can see its page on ${listed(having)}, with title and picture.`;
  const others = `${listed(without)} ${without.length === 1 ? 'has none, and opens' : 'have none, and open'} at that time.`;
  return [what, ...(having.length > 0 ? [announced] : []), ...(without.length > 0 ? [others] : [])].join(' ');
}

/** What the time is. What is on its way opens without one only where that is said. */
function labelOf(release: Release, isOut: boolean): string {
  if (release !== 'together') return 'Opens at';
  return isOut ? 'Not before' : 'Not before (if left empty: as soon as all are checked)';
}

/** How it opens until something else is said. */
function opensNow({ release, opensAt }: SheetHandle['sheet']['values']): string {
  const name = RELEASE_CHOICES.find(([each]) => each === release)?.[1] ?? release;
  return isTimed(release) && opensAt ? `${name}, ${momentInWords(opensAt)}` : name;
}

/** How the video comes to be open: by itself, by a word, at a time, or with its other channels. */
export function ReleaseChoice({ handle }: { handle: SheetHandle }) {
  const { values, channels } = handle.sheet;
  const ticked = channels.filter((channel) => channel.ticked);
  // Chosen for what is on its way, and not said in full yet: until then it opens as before.
  const [chosenNow, setPending] = useState<Release>();
  const pending = isTimed(values.release) ? undefined : chosenNow;
  const release = pending ?? values.release;
  const timed = isTimed(release);
  const isOut = channels.some(({ drop }) => drop && !['draft', 'live', 'removed'].includes(drop.state));
  const choose = (chosen: Release) => {
    if (isOut && isTimed(chosen) && !isTimed(values.release)) return setPending(chosen);
    setPending(undefined);
    if (chosen !== values.release) void handle.save({ release: chosen });
  };
  const setTime = (opensAt: Moment | null) => {
    if (pending === undefined) return void handle.save({ opensAt });
    if (!opensAt) return;
    setPending(undefined);
    void handle.save({ release: pending, opensAt });
  };
  const sure = useSure();
  const openTogether = async () => {
    const names = ticked.flatMap(({ name, drop }) => (drop?.state === 'live' ? [] : [name]));
    if (!(await sure(questionBeforeOpening(names, openEnd(values.privacy))))) return;
    if (await handle.act(`/api/videos/${handle.sheet.id}/together`, { method: 'POST' })) setPending(undefined);
  };
  // Channels of a site print the same date; where it is live, that was printed.
  const toOpen = ticked.filter(({ drop }) => drop?.state !== 'live');
  const sites = [...new Map(toOpen.map(({ site, rules }) => [site, rules])).values()];
  return (
    <div className="mt-2 grid gap-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="text-sm text-soft">Opens</span>
        <Choose<Release> label="How it opens" value={release} options={RELEASE_CHOICES} onChange={choose} />
        <SheetMark handle={handle} field="release" />
      </div>
      <PlaceOffer handle={handle} />
      <Below>
        <DiffersOn handle={handle} field="release" />
      </Below>
      {pending && (
        <Below>
          <span role="status">Say when. Until then it opens as before: {opensNow(values)}.</span>
        </Below>
      )}
      {pending === 'together' && (
        <div>
          <Button look="plain" onClick={() => void openTogether()}>
            {BUTTONS.openOnceChecked}
          </Button>
        </div>
      )}
      {timed && (
        <div className="grid gap-1.5">
          <div className="flex min-h-6 flex-wrap items-center justify-between gap-x-3">
            <label htmlFor="opensAt" className="text-sm text-soft">
              {labelOf(release, isOut)}
            </label>
            <SheetMark handle={handle} field="opensAt" />
          </div>
          <Below>
            <DiffersOn handle={handle} field="opensAt" />
          </Below>
          {release === 'first showing' && <Below>{showingWords(handle)}</Below>}
          <OpeningTime id="opensAt" value={pending ? null : values.opensAt} onChange={setTime} sites={sites} />
          <Clashes handle={handle} />
          {!pending && (
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
              <span className="text-sm text-soft">If it could not open then</span>
              <LateField
                label="If it could not open then"
                hours={values.lateAtMost}
                onChange={(lateAtMost) => void handle.save({ lateAtMost })}
              />
              <SheetMark handle={handle} field="lateAtMost" />
            </div>
          )}
        </div>
      )}
    </div>
  );
}

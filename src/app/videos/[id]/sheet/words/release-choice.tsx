'use client';

import dynamic from 'next/dynamic';
import type { Release } from '@/core/defaults';
import { isTimed } from '@/core/release/opening';
import { Choose } from '@/ui/choose';
import { RELEASE_CHOICES } from '@/ui/fields/choices';
import { Below } from '@/ui/fields/field-row';
import { LateField } from '@/ui/fields/hours-field';
import { DiffersOn, SheetMark } from '../sheet-mark';
import type { SheetHandle } from '../use-sheet';
import { Clashes } from './clashes';
import { PlaceOffer } from './place-offer';

const OpeningTime = dynamic(() => import('@/ui/release/opening-time').then((part) => part.OpeningTime), {
  loading: () => null,
});

/** What a first showing is, and where there is none. */
function showingWords({ sheet }: SheetHandle): string {
  const ticked = sheet.channels.filter((channel) => channel.ticked);
  // One that opens by itself waits for no time; what is missing says so.
  const without = ticked.filter(({ rules }) => !rules.firstShowings && !rules.opensItself).map(({ name }) => name);
  const what = 'People watch it together from that time on, and can talk about it.';
  if (without.length === 0) return what;
  return `${what} ${new Intl.ListFormat('en').format(without)} ${without.length === 1 ? 'has none, and opens' : 'have none, and open'} at that time.`;
}

/** How the video comes to be open: by itself, by a word, at a time, or with its other channels. */
export function ReleaseChoice({ handle }: { handle: SheetHandle }) {
  const { values, channels } = handle.sheet;
  const timed = isTimed(values.release);
  // Channels of a site print the same date.
  const ticked = channels.filter((channel) => channel.ticked);
  const sites = [...new Map(ticked.map(({ site, rules }) => [site, rules])).values()];
  return (
    <div className="mt-2 grid gap-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="text-sm text-soft">Opens</span>
        <Choose<Release>
          label="How it opens"
          value={values.release}
          options={RELEASE_CHOICES}
          onChange={(release) => void handle.save({ release })}
        />
        <SheetMark handle={handle} field="release" />
      </div>
      <PlaceOffer handle={handle} />
      <Below>
        <DiffersOn handle={handle} field="release" />
      </Below>
      {timed && (
        <div className="grid gap-1.5">
          <div className="flex min-h-6 flex-wrap items-center justify-between gap-x-3">
            <label htmlFor="opensAt" className="text-sm text-soft">
              {values.release === 'together' ? 'Not before (if left empty: as soon as all are checked)' : 'Opens at'}
            </label>
            <SheetMark handle={handle} field="opensAt" />
          </div>
          <Below>
            <DiffersOn handle={handle} field="opensAt" />
          </Below>
          {values.release === 'first showing' && <Below>{showingWords(handle)}</Below>}
          <OpeningTime
            id="opensAt"
            value={values.opensAt}
            onChange={(opensAt) => void handle.save({ opensAt })}
            sites={sites}
          />
          <Clashes handle={handle} />
          <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="text-sm text-soft">If it could not open then</span>
            <LateField
              label="If it could not open then"
              hours={values.lateAtMost}
              onChange={(lateAtMost) => void handle.save({ lateAtMost })}
            />
            <SheetMark handle={handle} field="lateAtMost" />
          </div>
        </div>
      )}
    </div>
  );
}

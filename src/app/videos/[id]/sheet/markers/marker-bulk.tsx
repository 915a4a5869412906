'use client';

import type { MarkerKind } from '@/core/chapters';
import { plus } from '@/core/time';
import { Button } from '@/ui/button';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';
import { ShiftForm } from '../time-line/shift-form';
import { again, type MarkerWords, type PlacedMarker, useTimeLine } from '../time-line/time-line-state';
import { MarkerColour } from './marker-colour';
import { MARKER_KINDS } from './marker-kinds';

/** What can be done with several markers at once; each is one change that can be undone. */
export function MarkerBulk({ chosen, onForget }: { chosen: PlacedMarker[]; onForget: () => void }) {
  const { change } = useTimeLine();
  const putAll = (words: (marker: PlacedMarker) => Partial<MarkerWords>) =>
    change({ put: chosen.map((marker) => ({ ...again(marker), ...words(marker) })) });
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 bg-held-wash px-3.5 py-2 text-sm">
      <b>{chosen.length} chosen</b>
      <span className="w-40">
        <MarkerColour
          value=""
          label="Colour of those chosen"
          first="give them a colour"
          onChoose={(colour) => putAll(() => ({ colour }))}
        />
      </span>
      <Choose<MarkerKind | ''>
        label="Whether viewers see those chosen"
        value=""
        options={[['', 'for viewers?'], ...MARKER_KINDS]}
        onChange={(kind) => kind !== '' && putAll(() => ({ kind }))}
        className={CHOOSE_SMALL}
      />
      <ShiftForm
        says="Move by"
        label="Move those chosen by"
        onShift={(by) => putAll(({ time }) => ({ time: plus(time, by) }))}
      />
      <span className="ml-auto flex gap-3">
        <Button look="plain" onClick={() => change({ remove: chosen.map((marker) => marker.id) })}>
          Remove
        </Button>
        <Button look="plain" onClick={onForget}>
          Choose none
        </Button>
      </span>
    </div>
  );
}

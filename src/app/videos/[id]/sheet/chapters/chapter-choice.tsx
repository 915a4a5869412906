'use client';

import { useMemo, useState } from 'react';
import type { ChapterChoice as Choice } from '@/core/chapters';
import type { MarkerPlace } from '@/core/markers';
import { DraftInput } from '@/ui/fields/draft-input';
import { useDraft } from '@/ui/saving/use-draft';
import { TickBox } from '@/ui/tick-box';
import { useTimeLine } from '../time-line/time-line-state';

const PLACES: Record<MarkerPlace, string> = { timeline: 'time line', track: 'track', clip: 'clip' };

/** How many markers have each value. */
function counts<T extends string>(values: T[]): [T, number][] {
  const found = new Map<T, number>();
  for (const value of values) found.set(value, (found.get(value) ?? 0) + 1);
  return [...found];
}

/** Which markers are for viewers: by colour, by where they sat in the edit, by name. */
export function ChapterChoice() {
  const { handle, markers } = useTimeLine();
  const { sheet, save } = handle;
  const choice = sheet.chapterChoice;
  const colours = useMemo(() => counts(markers.map((marker) => marker.colour)), [markers]);
  const places = useMemo(() => counts(markers.map((marker) => marker.on)), [markers]);
  const choose = (change: Partial<Choice>) => save({ chapterChoice: { ...choice, ...change } });
  const toggle = <T,>(all: T[], each: T, wanted: boolean) => [
    ...all.filter((other) => other !== each),
    ...(wanted ? [each] : []),
  ];
  const [narrowed, setNarrowed] = useState(choice.places.length > 0 || choice.name !== '');
  const name = useDraft(choice.name, (text) => choose({ name: text }), { key: `${sheet.id} chapter name` });
  return (
    <>
      <fieldset className="flex flex-wrap gap-x-3.5 gap-y-1">
        <legend className="text-[13px] text-soft">Make chapters from</legend>
        {colours.map(([colour, count]) => (
          <TickBox
            key={colour}
            ticked={choice.colours.includes(colour)}
            onTick={(ticked) => choose({ colours: toggle(choice.colours, colour, ticked) })}
            className="py-0.5"
          >
            {colour || 'no colour'} <span className="text-soft">({count})</span>
          </TickBox>
        ))}
      </fieldset>
      {!sheet.chaptersChosen && (
        <button type="button" className="textlink text-[13px]" onClick={() => void choose({ colours: [] })}>
          No chapters in this video
        </button>
      )}
      {sheet.chaptersChosen === 'by the series' && <p className="text-[13px] text-soft">as the series says</p>}
      <details className="text-[13px]" open={narrowed} onToggle={(event) => setNarrowed(event.currentTarget.open)}>
        <summary className="cursor-pointer text-copper">Narrow down</summary>
        <div className="mt-1.5 grid gap-2">
          {places.length > 1 && (
            <fieldset className="flex flex-wrap gap-x-3">
              <legend className="text-soft">only those that sat on the</legend>
              {places.map(([place, count]) => (
                <TickBox
                  key={place}
                  ticked={choice.places.length === 0 || choice.places.includes(place)}
                  onTick={(ticked) => {
                    const all = places.map(([each]) => each);
                    const next = toggle(choice.places.length === 0 ? all : choice.places, place, ticked);
                    void choose({ places: next.length === all.length ? [] : next });
                  }}
                  className="py-0.5"
                >
                  {PLACES[place]} <span className="text-soft">({count})</span>
                </TickBox>
              ))}
            </fieldset>
          )}
          <label htmlFor="chapter-name" className="grid gap-0.5">
            <span className="text-soft">only those whose name fits (* stands for anything)</span>
            <DraftInput
              id="chapter-name"
              draft={name}
              placeholder="any name"
              className="rounded-md border border-edge bg-card px-2 py-1"
            />
          </label>
        </div>
      </details>
    </>
  );
}

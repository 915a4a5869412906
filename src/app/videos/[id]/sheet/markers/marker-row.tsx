'use client';

import { useEffect, useState } from 'react';
import type { MarkerKind } from '@/core/chapters';
import type { MarkerPlace } from '@/core/markers';
import { frameAtTime, momentFromText } from '@/core/time';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';
import { DraftInput } from '@/ui/fields/draft-input';
import { TakeOff } from '@/ui/fields/take-off';
import { useNotices } from '@/ui/notices';
import { useDraft } from '@/ui/saving/use-draft';
import { useFromPlayhead, usePlayer } from '../time-line/player-state';
import { again, type MarkerPut, type MarkerWords, type PlacedMarker, useTimeLine } from '../time-line/time-line-state';
import { MarkerColour } from './marker-colour';
import { MARKER_KINDS } from './marker-kinds';

/** The columns of the table of markers; on a phone each marker is a card of its own. */
export const MARKER_GRID =
  'grid grid-cols-[24px_minmax(0,1fr)_minmax(0,1fr)_24px] items-center gap-x-2.5 gap-y-1 px-3.5 sm:grid-cols-[20px_112px_minmax(120px,1.4fr)_minmax(80px,1fr)_96px_146px_24px]';

/** A line of its own on a card. */
const LINE = 'max-sm:order-2 max-sm:col-span-4';

const CELL =
  '-ml-2 w-[calc(100%+8px)] min-w-0 rounded-md border border-transparent bg-transparent px-2 py-1 hover:border-edge focus:border-edge focus:bg-paper max-sm:border-edge';

const PLACES: Record<MarkerPlace, string> = { timeline: '', track: 'on a track', clip: 'on a clip' };

interface RowProps {
  marker: PlacedMarker;
  chosen: boolean;
  onChoose: (wanted: boolean) => void;
}

/** One marker of the table, changed in place. */
export function MarkerRow({ marker, chosen, onChoose }: RowProps) {
  const { handle, change } = useTimeLine();
  const put = (words: Partial<MarkerWords>, was?: MarkerPut['was']) =>
    change({ put: [{ ...again(marker), ...words, was }] });
  const key = `${handle.sheet.id} marker ${marker.id}`;
  const name = useDraft(marker.name, (text, on) => put({ name: text }, { name: String(on) }), { key: `${key} name` });
  const note = useDraft(marker.note, (text, on) => put({ note: text }, { note: String(on) }), { key: `${key} note` });
  const here = useIsHere(marker);
  return (
    <div
      className={`${MARKER_GRID} min-h-10 border-line border-b py-0.5 max-sm:py-2 ${here ? 'bg-copper-wash' : ''} ${marker.outside ? 'text-soft' : ''}`}
    >
      <input
        type="checkbox"
        aria-label={`Choose the marker at ${marker.timecode}`}
        checked={chosen}
        onChange={(event) => onChoose(event.target.checked)}
        className="size-4 accent-[var(--rim)]"
      />
      <TimeCell marker={marker} />
      <DraftInput draft={name} aria-label={`Name of the marker at ${marker.timecode}`} className={`${CELL} ${LINE}`} />
      <DraftInput
        draft={note}
        placeholder={PLACES[marker.on]}
        data-tip={PLACES[marker.on] && `It sat ${PLACES[marker.on]} in the edit`}
        aria-label={`Note of the marker at ${marker.timecode}`}
        className={`${CELL} ${LINE} text-soft`}
      />
      <span className="min-w-0 max-sm:order-3 max-sm:col-span-2">
        <MarkerColour
          value={marker.colour}
          label={`Colour of the marker at ${marker.timecode}`}
          first="no colour"
          onChoose={(colour) => put({ colour })}
        />
      </span>
      <ForViewers marker={marker} onChoose={(kind) => put({ kind })} />
      <TakeOff label={`Remove the marker at ${marker.timecode}`} onClick={() => change({ remove: [marker.id] })} />
    </div>
  );
}

/** Whether the playhead stands on a marker. */
function useIsHere(marker: PlacedMarker): boolean {
  const { rate } = useTimeLine();
  const player = usePlayer();
  const frame = frameAtTime({ num: Math.round(marker.seconds * 1e6) + 1, den: 1_000_000 }, rate);
  return useFromPlayhead(() => player.frame() === frame);
}

/** A marker's time: a press goes there, and another time can be typed. */
function TimeCell({ marker }: { marker: PlacedMarker }) {
  const { handle, rate, from, change } = useTimeLine();
  const { seek } = usePlayer();
  const { trouble } = useNotices();
  const [text, setText] = useState(marker.timecode);
  useEffect(() => setText(marker.timecode), [marker.timecode]);
  const set = () => {
    if (text.trim() === marker.timecode) return;
    try {
      const time = momentFromText(text, { rate, startFrame: handle.sheet.timeLine.startFrame, from });
      void change({ put: [{ ...again(marker), time }] });
    } catch (error) {
      trouble(error);
      setText(marker.timecode);
    }
  };
  return (
    <input
      value={text}
      onChange={(event) => setText(event.target.value)}
      onClick={() => !marker.outside && seek(marker.seconds + 0.001)}
      onBlur={set}
      onKeyDown={(event) => {
        if (event.key === 'Enter') set();
        if (event.key === 'Escape') setText(marker.timecode);
      }}
      spellCheck={false}
      data-tip={
        marker.outside
          ? 'It lies outside what was exported'
          : 'Press to go there; type another time to move it: 0:30, frame 120, 01:00:00:00'
      }
      aria-label={`Time of the marker ${marker.name}`}
      className={`${CELL} font-mono text-sm max-sm:col-span-2`}
    />
  );
}

function ForViewers({ marker, onChoose }: { marker: PlacedMarker; onChoose: (kind: MarkerKind) => void }) {
  return (
    <span className="flex min-w-0 items-center gap-1.5 max-sm:order-3 max-sm:col-span-2">
      <span aria-hidden className={`w-3 text-center ${marker.seen ? 'text-live' : 'text-idle'}`}>
        {marker.seen ? '●' : '○'}
      </span>
      <Choose
        label={`Whether viewers see the marker at ${marker.timecode}`}
        value={marker.kind}
        options={MARKER_KINDS}
        onChange={onChoose}
        className={`${CHOOSE_SMALL} w-full`}
      />
    </span>
  );
}

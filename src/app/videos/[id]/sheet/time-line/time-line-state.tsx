'use client';

import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { v7 as newId } from 'uuid';
import {
  type Chapter,
  chaptersFromMarkers,
  exportedRange,
  isChosen,
  type LeftOut,
  timeLineRate,
} from '@/core/chapters';
import { codeAt, compare, type Fraction, minus, plus, type Rate, toNumber, ZERO } from '@/core/time';
import type { MarkersView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import type { SaveEnd } from '@/ui/saving/use-acts';
import type { SheetHandle } from '../use-sheet';

/** A marker of the time line, `time` in exact seconds of it. */
type KeptMarker = MarkersView['markers'][number];

/** A marker as the Sheet shows it: on the time line, and where that is in the cut. */
export interface PlacedMarker extends KeptMarker {
  /** Seconds in the cut, for drawing and seeking; below zero or past the end where it lies outside. */
  seconds: number;
  timecode: string;
  /** Whether the choice makes it a chapter. */
  seen: boolean;
  /** Whether it lies outside what was exported. */
  outside: boolean;
}

/** What can be set of a marker. */
export type MarkerWords = Pick<PlacedMarker, 'time' | 'name' | 'note' | 'colour' | 'kind'>;

/** What is set of a marker; one without an id is new. */
export type MarkerPut = MarkerWords & {
  id?: string;
  /** Values that it was changed from, where these are others than those shown. */
  was?: Partial<Pick<PlacedMarker, 'name' | 'note'>>;
};

/** Markers that are put and those taken away, all as one change. */
export interface MarkerEdit {
  put?: MarkerPut[];
  remove?: string[];
}

interface TimeLineState {
  handle: SheetHandle;
  rate: Rate;
  /** Exact seconds of the cut, once it has been read. */
  duration: Fraction | undefined;
  /** Exact seconds on the time line at which the video begins. */
  from: Fraction;
  markers: PlacedMarker[];
  chapters: Chapter[];
  leftOut: LeftOut[];
  /** Time-line timecode of a moment of the time line. */
  timecode(time: Fraction): string;
  /** The moment of the time line at which a frame of the cut starts. */
  timeOfCutFrame(frame: number): Fraction;
  change(edit: MarkerEdit): Promise<SaveEnd>;
}

const Context = createContext<TimeLineState | undefined>(undefined);

/** The time line of this Sheet: its markers, the chapters that they make, and how to change them. */
export function useTimeLine(): TimeLineState {
  const state = useContext(Context);
  if (!state) throw new Error('A part of the time line stands outside a Sheet');
  return state;
}

type Pending = { put: (KeptMarker & { isNew: boolean })[]; remove: string[] };

/** The markers with what is being saved over them, in order of time. */
function withPending(markers: KeptMarker[], pending: readonly Pending[]): KeptMarker[] {
  if (pending.length === 0) return markers;
  const all = new Map(markers.map((marker) => [marker.id, marker]));
  for (const { put, remove } of pending) {
    for (const { isNew, ...marker } of put) all.set(marker.id, marker);
    for (const id of remove) all.delete(id);
  }
  return [...all.values()].sort((a, b) => compare(a.time, b.time));
}

const PLAIN_RATE: Fraction = { num: 25, den: 1 };

/**
 * Shares the time line between ruler, table, chapters and keys. What is changed is shown at once; it is saved behind
 * that, one change after the other, and read again when it is there.
 */
export function TimeLineProvider({
  handle,
  first,
  children,
}: {
  handle: SheetHandle;
  first: MarkersView;
  children: ReactNode;
}) {
  const { sheet, saveAt } = handle;
  const { chapterChoice, timeLine, markersVersion } = sheet;
  const client = useQueryClient();
  const at = `/api/videos/${sheet.id}/markers`;
  const query = (version: number) => ({
    queryKey: ['markers', sheet.id, version],
    queryFn: () => ask<MarkersView>(at),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const { data = first } = useQuery({
    ...query(markersVersion),
    initialData: markersVersion === first.version ? first : undefined,
    placeholderData: keepPreviousData,
  });
  const [pending, setPending] = useState<Pending[]>([]);

  const facts = sheet.cut?.facts;
  const [exact, duration] = [facts?.video.rate ?? PLAIN_RATE, facts?.duration];
  const rate = useMemo(() => timeLineRate(exact, timeLine), [exact, timeLine]);
  const kept = useMemo(() => withPending(data.markers, pending), [data.markers, pending]);
  const range = useMemo(() => exportedRange(timeLine, duration), [timeLine, duration]);
  const markers = useMemo(
    () =>
      kept.map((marker): PlacedMarker => {
        const { time } = marker;
        return {
          ...marker,
          seconds: toNumber(minus(time, range.from)),
          timecode: codeAt(time, timeLine.startFrame, rate),
          seen: isChosen(marker, chapterChoice),
          outside: compare(time, range.from) < 0 || (range.to !== undefined && compare(time, range.to) >= 0),
        };
      }),
    [kept, range, rate, timeLine.startFrame, chapterChoice],
  );
  const made = useMemo(() => chaptersFromMarkers(kept, chapterChoice, range), [kept, chapterChoice, range]);

  const change = ({ put = [], remove = [] }: MarkerEdit): Promise<SaveEnd> => {
    const keptById = new Map(kept.map((marker) => [marker.id, marker]));
    const edit: Pending = {
      put: put.map(({ id = newId(), was: _, ...words }) => {
        const old = keptById.get(id);
        return { length: ZERO, on: 'timeline', ...old, ...words, id, isNew: old === undefined };
      }),
      remove,
    };
    setPending((all) => [...all, edit]);
    const json = {
      put: edit.put.map(({ id, isNew, time, name, note, colour, kind }, index) => {
        const old = keptById.get(id);
        const on = old && { ...wordsOf(old), ...put[index]?.was };
        return { id, isNew, time, name, note, colour, kind, on };
      }),
      remove,
    };
    const saved = saveAt(at, { method: 'PATCH', json }).finally(async () => {
      const version = client.getQueryData<typeof sheet>(['sheet', sheet.id])?.markersVersion ?? markersVersion;
      await client.fetchQuery(query(version)).catch(() => undefined);
      setPending((all) => all.filter((each) => each !== edit));
    });
    return saved;
  };

  const value: TimeLineState = {
    handle,
    rate,
    duration,
    from: range.from,
    markers,
    ...made,
    timecode: (time) => codeAt(time, timeLine.startFrame, rate),
    timeOfCutFrame: (frame) => plus(range.from, { num: frame * exact.den, den: exact.num }),
    change,
  };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

const wordsOf = ({ time, name, note, colour, kind }: KeptMarker) => ({ time, name, note, colour, kind });

/** A marker as it is put again with something changed. */
export function again({ id, time, name, note, colour, kind }: PlacedMarker): MarkerPut {
  return { id, time, name, note, colour, kind };
}

'use client';

import { useMemo, useState } from 'react';
import {
  cornerOnPath,
  type Framed,
  type Framing,
  frameIn,
  middleOf,
  type Point,
  pathOf,
  type Shape,
  shotStarts,
  UNPLACED,
  withPlacement,
} from '@/core/framing';
import { shownSize } from '@/core/renditions';
import { rate } from '@/core/time';
import { startOfFrame, usePlayer } from '../time-line/player-state';
import { useMeasures } from '../time-line/use-measures';
import type { SheetHandle } from '../use-sheet';

/** The frame of one shape over the video: where it is at the playhead, and how it is put somewhere else. */
export function useFrame(handle: SheetHandle, shape: Shape) {
  const { sheet, save } = handle;
  const player = usePlayer();
  const measures = useMeasures(sheet);
  /** Where it is held by the pointer or the keys, until it is let go. */
  const [held, setHeld] = useState<Point>();
  const facts = sheet.cut?.facts;
  const framing: Framing = sheet.framings[shape] ?? UNPLACED;
  const exact = facts?.video.rate ?? { num: 25, den: 1 };
  const starts = useMemo(() => shotStarts(measures?.shots ?? [], rate(exact.num, exact.den)), [measures, exact]);
  const path = useMemo(() => pathOf(framing.placements, starts), [framing, starts]);
  const framed: Framed = useMemo(() => {
    const full = facts ? shownSize(facts.video) : { width: 16, height: 9 };
    return { full, frame: frameIn(full, shape, framing.percent) };
  }, [facts, shape, framing.percent]);
  const now = () => startOfFrame(player.frame(), exact);
  const corner = (): Point => held ?? cornerOnPath(path, now(), framed);
  const set = (next: Framing) => save({ framings: { ...sheet.framings, [shape]: next } });
  /** Keeps a corner as its place at the playhead. */
  const put = (at: Point) => {
    setHeld(undefined);
    void set(withPlacement(framing, now(), middleOf(at, framed)));
  };
  return {
    framing,
    framed,
    starts,
    corner,
    set,
    /** Shows it with its upper left corner elsewhere, within the picture. */
    hold({ x, y }: Point) {
      const { full, frame } = framed;
      const kept = (value: number, most: number) => Math.max(0, Math.min(most, value));
      setHeld({ x: kept(x, full.width - frame.width), y: kept(y, full.height - frame.height) });
    },
    putHere: () => put(corner()),
    letGo: () => held && put(held),
  };
}

export type FrameHandle = ReturnType<typeof useFrame>;

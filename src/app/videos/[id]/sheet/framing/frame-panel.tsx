'use client';

import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import {
  CLOSEST_PERCENT,
  COMINGS,
  type Coming,
  type Placement,
  SHAPE_NAMES,
  type Shape,
  withoutPlacement,
} from '@/core/framing';
import { compare, ZERO } from '@/core/time';
import { Button } from '@/ui/button';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';
import { usePlayer } from '../time-line/player-state';
import { useTimeLine } from '../time-line/time-line-state';
import { useFraming } from './framing-state';
import type { FrameHandle } from './use-frame';

const COMING_WORDS: Record<Coming, string> = {
  held: 'stays, then moves',
  smooth: 'moves all the way',
  cut: 'jumps',
};
const PERCENTS = [100, 90, 80, 70, 60, 50, CLOSEST_PERCENT];

/** What a frame makes of the video, playing beside it, and every place that the frame was put at. */
export function FramePanel({ frame, shape, shapes }: { frame: FrameHandle; shape: Shape; shapes: readonly Shape[] }) {
  const { setShape } = useFraming();
  const { framing, set } = frame;
  return (
    <div className="flex flex-col gap-2.5 border-line px-3.5 py-3 text-sm md:absolute md:inset-y-0 md:right-0 md:w-[300px] md:overflow-y-auto md:border-l">
      <div className="flex items-baseline justify-between gap-2">
        <h3>The {shape} frame</h3>
        <button type="button" className="textlink" onClick={() => setShape(undefined)}>
          Back to chapters
        </button>
      </div>
      {shapes.length > 1 && (
        <Choose
          label="Shape"
          value={shape}
          options={shapes.map((each) => [each, SHAPE_NAMES[each]] as const)}
          onChange={setShape}
          className={CHOOSE_SMALL}
        />
      )}
      <div className="flex items-start gap-3">
        <Result frame={frame} />
        <div className="grid content-start gap-2">
          <span className="text-[13px] text-soft">As the file will show it. Press play to watch it.</span>
          <Choose
            label="Size of the frame"
            value={String(framing.percent)}
            options={[...new Set([...PERCENTS, framing.percent])].map(
              (percent) => [String(percent), percent === 100 ? 'full size' : `${percent} % of it`] as const,
            )}
            onChange={(value) => void set({ ...framing, percent: Number(value) })}
            className={CHOOSE_SMALL}
          />
          <Button look="quiet" onClick={frame.putHere}>
            Put it here
          </Button>
        </div>
      </div>
      {framing.placements.length === 0 ? (
        <p className="text-soft">
          Drag the frame to what matters. It holds from where that shot begins; shots without a place of their own keep
          the last one.
        </p>
      ) : (
        <ul aria-label="Places of the frame" className="-mx-1.5 grid gap-0.5">
          {framing.placements.map((placement, index) => (
            <Place
              key={`${placement.at.num}/${placement.at.den}`}
              placement={placement}
              before={framing.placements[index - 1]}
              frame={frame}
            />
          ))}
        </ul>
      )}
    </div>
  );
}

/** One place: where in time, and how the frame comes there. */
function Place({
  placement,
  before,
  frame,
}: {
  placement: Placement;
  before: Placement | undefined;
  frame: FrameHandle;
}) {
  const { timecode, from, rate } = useTimeLine();
  const player = usePlayer();
  const { framing, set, starts } = frame;
  const { at, comes } = placement;
  const start = starts.findLast((each) => compare(each, at) <= 0) ?? ZERO;
  const first = !before || compare(before.at, start) < 0;
  const name = timecode({ num: from.num * at.den + at.num * from.den, den: from.den * at.den });
  return (
    <li className="flex items-center gap-2 rounded-md px-1.5 py-0.5">
      <button
        type="button"
        className="flex-none font-mono text-[13px] hover:underline"
        onClick={() => player.seekFrame(Math.round((at.num * rate.num) / (at.den * rate.den)))}
      >
        {name}
      </button>
      {first ? (
        <span className="min-w-0 flex-1 text-[13px] text-soft">from its shot’s start</span>
      ) : (
        <Choose
          label={`How the frame comes to ${name}`}
          value={comes}
          options={COMINGS.map((each) => [each, COMING_WORDS[each]] as const)}
          onChange={(next) =>
            void set({
              ...framing,
              placements: framing.placements.map((each) => (each === placement ? { ...each, comes: next } : each)),
            })
          }
          className={`${CHOOSE_SMALL} flex-1`}
        />
      )}
      <button
        type="button"
        aria-label={`Take away the place at ${name}`}
        className="rounded-full p-1 text-soft hover:bg-sunk"
        onClick={() => void set(withoutPlacement(framing, at))}
      >
        <X size={14} />
      </button>
    </li>
  );
}

const RESULT_LINES = 230;

/** The part of the picture that is in the frame, as it plays. */
function Result({ frame }: { frame: FrameHandle }) {
  const { video, listen } = usePlayer();
  const canvas = useRef<HTMLCanvasElement>(null);
  const draw = useRef(() => {});
  const { full, frame: size } = frame.framed;
  draw.current = () => {
    const [from, to] = [video.current, canvas.current?.getContext('2d')];
    if (!from || !to || from.readyState < 2) return;
    const { x, y } = frame.corner();
    const scale = from.videoWidth / full.width;
    const part = [x, y, size.width, size.height].map((each) => each * scale) as [number, number, number, number];
    to.drawImage(from, ...part, 0, 0, to.canvas.width, to.canvas.height);
  };
  // After each drawing: the frame may be held elsewhere, or the picture may have come only now.
  useEffect(() => draw.current());
  useEffect(() => listen(() => draw.current()), [listen]);
  useEffect(() => {
    const player = video.current;
    const drawn = () => draw.current();
    for (const event of ['loadeddata', 'seeked']) player?.addEventListener(event, drawn);
    return () => {
      for (const event of ['loadeddata', 'seeked']) player?.removeEventListener(event, drawn);
    };
  }, [video]);
  const lines = size.width < size.height ? RESULT_LINES : RESULT_LINES * 0.6;
  return (
    <canvas
      ref={canvas}
      width={Math.round((lines * size.width) / size.height) * 2}
      height={Math.round(lines) * 2}
      aria-label="What the frame shows"
      role="img"
      className="flex-none rounded-md border border-line bg-sunk"
      style={{ height: lines, width: (lines * size.width) / size.height }}
    />
  );
}

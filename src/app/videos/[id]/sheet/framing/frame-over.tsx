'use client';

import { type PointerEvent, useRef } from 'react';
import { type Point, SHAPE_NAMES, type Shape } from '@/core/framing';
import { usePlayer, usePlayhead } from '../time-line/player-state';
import type { FrameHandle } from './use-frame';

/** The player's own shape: what is narrower or wider has bars. */
const PLAYER_SHAPE = 16 / 9;
/** By how much a key moves it, in parts of the picture; with Shift, ten times as much. */
const KEY_PART = 0.005;
const WAYS: Record<string, Point | undefined> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** The frame over the picture, which is dragged or moved by the arrow keys. What it leaves out is dimmed. */
export function FrameOver({ frame, shape }: { frame: FrameHandle; shape: Shape }) {
  const player = usePlayer();
  usePlayhead();
  const picture = useRef<HTMLDivElement>(null);
  const grabbed = useRef<Point>(undefined);
  const { full, frame: size } = frame.framed;
  const wide = full.width / full.height / PLAYER_SHAPE;
  const corner = frame.corner();
  const pointed = ({ clientX, clientY }: PointerEvent): Point => {
    const box = picture.current?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1);
    return {
      x: ((clientX - box.left) / box.width) * full.width,
      y: ((clientY - box.top) / box.height) * full.height,
    };
  };
  const drag = (event: PointerEvent) => {
    const from = grabbed.current;
    if (!from) return;
    const { x, y } = pointed(event);
    frame.hold({ x: x - from.x, y: y - from.y });
  };
  const letGo = () => {
    grabbed.current = undefined;
    frame.letGo();
  };
  const part = (length: number, whole: number) => `${(length / whole) * 100}%`;
  return (
    <div className="absolute inset-0 grid place-items-center overflow-hidden">
      <div
        ref={picture}
        className="relative touch-none overflow-hidden"
        style={{ width: part(Math.min(1, wide), 1), height: part(Math.min(1, 1 / wide), 1) }}
        onPointerDown={(event) => {
          event.preventDefault();
          event.currentTarget.setPointerCapture(event.pointerId);
          player.setSpeed(0);
          const { x, y } = pointed(event);
          const inside = x >= corner.x && x <= corner.x + size.width && y >= corner.y && y <= corner.y + size.height;
          // A press beside it takes it there by its middle.
          grabbed.current = inside ? { x: x - corner.x, y: y - corner.y } : { x: size.width / 2, y: size.height / 2 };
          if (!inside) drag(event);
        }}
        onPointerMove={drag}
        onPointerUp={letGo}
        onPointerCancel={letGo}
      >
        <div
          role="slider"
          tabIndex={0}
          aria-label={`Frame, ${SHAPE_NAMES[shape]}`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(((corner.x + size.width / 2) / full.width) * 100)}
          aria-valuetext={`${Math.round(((corner.x + size.width / 2) / full.width) * 100)} % from the left, ${Math.round(((corner.y + size.height / 2) / full.height) * 100)} % from the top`}
          className="absolute cursor-move rounded-[3px] border-2 border-white shadow-[0_0_0_4000px_rgb(14_22_32/0.6)] outline-offset-2"
          style={{
            left: part(corner.x, full.width),
            top: part(corner.y, full.height),
            width: part(size.width, full.width),
            height: part(size.height, full.height),
          }}
          onKeyDown={(event) => {
            const way = WAYS[event.key];
            if (!way || event.altKey || event.ctrlKey || event.metaKey) return;
            event.preventDefault();
            player.setSpeed(0);
            const step = KEY_PART * full.width * (event.shiftKey ? 10 : 1);
            frame.hold({ x: corner.x + way.x * step, y: corner.y + way.y * step });
          }}
          onKeyUp={(event) => WAYS[event.key] && frame.letGo()}
          onBlur={() => frame.letGo()}
        />
      </div>
    </div>
  );
}

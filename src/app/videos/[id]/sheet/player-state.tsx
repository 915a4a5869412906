'use client';

import {
  createContext,
  type ReactNode,
  type RefObject,
  useCallback,
  useContext,
  useMemo,
  useRef,
  useState,
} from 'react';
import { type Fraction, fraction, frameAtTime, rate, timecodeOfFrame } from '@/core/time';

/** Where the player stands: seconds as the browser counts them, and what follows from the exact rate. */
interface PlayerState {
  video: RefObject<HTMLVideoElement | null>;
  seconds: number;
  timecode: string;
  frame: number;
  setSeconds(seconds: number): void;
  seek(seconds: number): void;
  step(frames: number): void;
}

const Context = createContext<PlayerState | undefined>(undefined);

/** The player of this Sheet. */
export function usePlayer(): PlayerState {
  const state = useContext(Context);
  if (!state) throw new Error('A player part stands outside a Sheet');
  return state;
}

/** Shares the playhead between player, ruler, chapters and picture. */
export function PlayerProvider({ rate: exact, children }: { rate: Fraction | undefined; children: ReactNode }) {
  const video = useRef<HTMLVideoElement>(null);
  const [seconds, setSeconds] = useState(0);
  const at = useMemo(() => rate(exact?.num ?? 25, exact?.den ?? 1), [exact?.num, exact?.den]);
  // The browser gives a double; a microsecond is far finer than a frame and brings it back to the exact side.
  const frame = Math.max(0, frameAtTime(fraction(Math.round(seconds * 1e6) + 1, 1_000_000), at));
  const seek = useCallback((to: number) => {
    const player = video.current;
    const bounded = Math.max(0, Math.min(to, player?.duration || to));
    if (player) player.currentTime = bounded;
    setSeconds(bounded);
  }, []);
  const step = useCallback(
    (frames: number) => {
      // To the middle of the frame, so that no rounding lands on its neighbour.
      seek(((frame + frames + 0.5) * at.den) / at.num);
    },
    [frame, at, seek],
  );
  const value = useMemo(
    () => ({ video, seconds, timecode: timecodeOfFrame(frame, at), frame, setSeconds, seek, step }),
    [seconds, frame, at, seek, step],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

'use client';

import {
  createContext,
  type ReactNode,
  type RefObject,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { type Fraction, fraction, frameAtTime, rate, timecodeOfFrame, timeOfFrame } from '@/core/time';

/** Where the player stands: seconds as the browser counts them, and what follows from the exact rate. */
interface PlayerState {
  video: RefObject<HTMLVideoElement | null>;
  seconds: number;
  timecode: string;
  frame: number;
  /** The exact start of the frame on screen, in seconds. */
  frameTime: Fraction;
  /** Playing speed: 0 stands still, below zero runs backwards. */
  speed: number;
  setSpeed(speed: number): void;
  setSeconds(seconds: number): void;
  seek(seconds: number): void;
  step(frames: number): void;
}

const BACKWARDS_MILLISECONDS = 60;

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
  const [speed, setSpeedState] = useState(0);
  const setSpeed = useCallback((next: number) => {
    const player = video.current;
    setSpeedState(next);
    if (!player) return;
    if (next > 0) {
      player.playbackRate = next;
      void player.play().catch(() => setSpeedState(0));
    } else player.pause();
  }, []);
  useEffect(() => {
    if (speed >= 0) return;
    // No browser plays backwards; it is shown as still pictures, one after the other.
    const timer = setInterval(() => {
      const player = video.current;
      if (!player) return;
      const to = Math.max(0, player.currentTime + (speed * BACKWARDS_MILLISECONDS) / 1000);
      player.currentTime = to;
      setSeconds(to);
      if (to === 0) setSpeedState(0);
    }, BACKWARDS_MILLISECONDS);
    return () => clearInterval(timer);
  }, [speed]);
  const value = useMemo(
    () => ({
      video,
      seconds,
      timecode: timecodeOfFrame(frame, at),
      frame,
      frameTime: timeOfFrame(frame, at),
      speed,
      setSpeed,
      setSeconds,
      seek,
      step,
    }),
    [seconds, frame, at, speed, setSpeed, seek, step],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

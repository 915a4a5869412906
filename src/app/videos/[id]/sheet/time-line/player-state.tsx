'use client';

import {
  createContext,
  type ReactNode,
  type RefObject,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useSyncExternalStore,
} from 'react';
import { type Fraction, fraction, frameAtTime, rate, timeOfFrame } from '@/core/time';

/** Where the playhead stands in the cut, and how fast it runs. */
interface Playhead {
  /** Seconds as the browser counts them. */
  seconds: number;
  /** Playing speed: 0 stands still, below zero runs backwards. */
  speed: number;
}

/** What moves the playhead. It stays the same while the playhead runs, so that who only moves it is not drawn again. */
interface Player {
  video: RefObject<HTMLVideoElement | null>;
  now(): Playhead;
  /** The frame on screen now. */
  frame(): number;
  setSpeed(speed: number): void;
  /** Notes where the player stands; does not move it. */
  noteSeconds(seconds: number): void;
  seek(seconds: number): void;
  /** Shows a frame: to its middle, so that no rounding lands on its neighbour. */
  seekFrame(frame: number): void;
  listen(heard: () => void): () => void;
}

const BACKWARDS_MILLISECONDS = 60;

const Context = createContext<Player | undefined>(undefined);

/** What moves the playhead of this Sheet. */
export function usePlayer(): Player {
  const player = useContext(Context);
  if (!player) throw new Error('A player part stands outside a Sheet');
  return player;
}

/** Where the playhead stands; drawn again with every frame. */
export function usePlayhead(): Playhead & { frame: number } {
  const player = usePlayer();
  const { seconds, speed } = useSyncExternalStore(player.listen, player.now, player.now);
  return { seconds, speed, frame: player.frame() };
}

/** Something that follows from where the playhead stands; drawn again only when it changes. */
export function useFromPlayhead<T extends string | number | boolean | undefined>(of: (at: Playhead) => T): T {
  const player = usePlayer();
  const value = () => of(player.now());
  return useSyncExternalStore(player.listen, value, value);
}

function makePlayer(video: Player['video'], rateNow: () => Fraction): Player {
  let head: Playhead = { seconds: 0, speed: 0 };
  const listeners = new Set<() => void>();
  const set = (next: Partial<Playhead>) => {
    head = { ...head, ...next };
    for (const heard of listeners) heard();
  };
  const player: Player = {
    video,
    now: () => head,
    frame: () => {
      const { num, den } = rateNow();
      // The browser gives a double; a microsecond is far finer than a frame and brings it back to the exact side.
      return Math.max(0, frameAtTime(fraction(Math.round(head.seconds * 1e6) + 1, 1_000_000), rate(num, den)));
    },
    setSpeed(speed) {
      set({ speed });
      const { current } = video;
      if (!current) return;
      if (speed > 0) {
        current.playbackRate = speed;
        void current.play().catch(() => set({ speed: 0 }));
      } else current.pause();
    },
    noteSeconds: (seconds) => set({ seconds }),
    seek(to) {
      const seconds = Math.max(0, Math.min(to, video.current?.duration || to));
      if (video.current) video.current.currentTime = seconds;
      set({ seconds });
    },
    seekFrame(frame) {
      const { num, den } = rateNow();
      player.seek(((Math.max(0, frame) + 0.5) * den) / num);
    },
    listen(heard) {
      listeners.add(heard);
      return () => listeners.delete(heard);
    },
  };
  return player;
}

/** Shares the playhead between player, ruler, chapters and picture. */
export function PlayerProvider({ rate: exact, children }: { rate: Fraction | undefined; children: ReactNode }) {
  const video = useRef<HTMLVideoElement>(null);
  const newest = useRef<Fraction>({ num: 25, den: 1 });
  newest.current = exact ?? newest.current;
  const player = useMemo(() => makePlayer(video, () => newest.current), []);
  useEffect(() => {
    // No browser plays backwards; it is shown as still pictures, one after the other.
    const timer = setInterval(() => {
      const { speed } = player.now();
      if (speed >= 0 || !video.current) return;
      const to = Math.max(0, video.current.currentTime + (speed * BACKWARDS_MILLISECONDS) / 1000);
      player.seek(to);
      if (to === 0) player.setSpeed(0);
    }, BACKWARDS_MILLISECONDS);
    return () => clearInterval(timer);
  }, [player]);
  return <Context.Provider value={player}>{children}</Context.Provider>;
}

/** The exact start of a frame, in seconds of the cut. */
export function startOfFrame(frame: number, exact: Fraction): Fraction {
  return timeOfFrame(frame, rate(exact.num, exact.den));
}

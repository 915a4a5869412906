'use client';

import { useRouter } from 'next/navigation';
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { PaceMeter, type TransferPace } from '@/core/delivery';
import { AskError, ask } from '../ask';
import { useNotices } from '../notices';
import { noteUnsaved } from '../saving/unsaved';
import { useSure } from '../sure';
import { whenIdle } from '../when-idle';
import { videosAmong } from './dropped-files';
import { fingerprintOf, proofOfStart } from './fingerprint';
import { forgetFile, holdTransfer, type KeptFile, keepFile } from './kept-files';
import { bytesHere, readyToCarry, startTransfer } from './transfer';

/** A file on its way from this page to Kettle Drop. */
export interface Arrival extends TransferPace {
  cutId: string;
  videoId: string;
  fileName: string;
  sent: number;
  total: number;
  /** What it waits for: its turn, or the line; it goes on by itself. */
  waits: 'turn' | 'line' | undefined;
}

interface Arrivals {
  arrivals: Map<string, Arrival>;
  /** The videos that came in together last, until they are put away. */
  added: readonly string[];
  putAway(): void;
  /** How many files wait for Kettle Drop to hear of them. */
  unheard: number;
  /** Starts bringing files in, as new videos or as better files of one; a single new one opens its Sheet. */
  bring(files: Iterable<File>, videoId?: string): Promise<void>;
  /** Goes on with a file that was kept when its page went. */
  goOnWith(kept: KeptFile): Promise<void>;
  /** Goes on with a transfer that broke off, if the file is the same. */
  goOn(file: File, fingerprint: string | undefined): Promise<void>;
}

const Context = createContext<Arrivals>({
  arrivals: new Map(),
  added: [],
  putAway: () => {},
  unheard: 0,
  bring: async () => {},
  goOn: async () => {},
  goOnWith: async () => {},
});

/** The transfers of this page. */
export const useArrivals = () => useContext(Context);

const SHOW_EVERY_MILLISECONDS = 250;
/** More at once only share the line, and each ends later. */
const MOST_AT_ONCE = 3;
const SAY_EVERY_MILLISECONDS = 20_000;
const ASK_AGAIN_MILLISECONDS = 1500;

/** What Kettle Drop says of a file that was announced. */
type Answer =
  | { cutId: string; videoId: string; goesOn: boolean; received: number }
  | { known: { videoId: string; title: string } }
  | { refused: string };

type Taken = Extract<Answer, { cutId: string }>;

/** Asks until there is an answer: a file that was taken is not lost because the line is gone for a moment. */
async function askUntilAnswered<T>(address: string, json: unknown): Promise<T> {
  for (;;) {
    try {
      return await ask<T>(address, { method: 'POST', json });
    } catch (error) {
      if (!(error instanceof AskError) || !error.mayPass) throw error;
      await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MILLISECONDS));
    }
  }
}

/** Carries files in by tus for as long as any page of Kettle Drop is open, whichever place is shown. */
export function ArrivalsProvider({ children }: { children: ReactNode }) {
  const [arrivals, setArrivals] = useState(new Map<string, Arrival>());
  const [unheard, setUnheard] = useState(0);
  const [added, setAdded] = useState<readonly string[]>([]);
  /** Transfers of this page, each with what lets it go. */
  const mine = useRef(new Map<string, () => void>());
  const queue = useRef<(() => void)[]>([]);
  const atOnce = useRef(0);
  const router = useRouter();
  const { trouble, say } = useNotices();
  const sure = useSure();

  const set = useCallback((arrival: Arrival) => setArrivals((all) => new Map(all).set(arrival.cutId, arrival)), []);
  const next = useCallback(() => {
    while (atOnce.current < MOST_AT_ONCE) {
      const start = queue.current.shift();
      if (!start) return;
      atOnce.current += 1;
      start();
    }
  }, []);
  const end = useCallback(
    (cutId: string) => {
      mine.current.get(cutId)?.();
      mine.current.delete(cutId);
      void forgetFile(cutId);
      noteUnsaved('arriving', -1);
      setArrivals((all) => new Map([...all].filter(([id]) => id !== cutId)));
      atOnce.current -= 1;
      next();
    },
    [next],
  );

  const carry = useCallback(
    (file: File, { cutId, videoId, goesOn }: Taken) => {
      const base = { cutId, videoId, fileName: file.name, total: file.size };
      const still = { bytesPerSecond: 0, secondsLeft: undefined };
      const meter = new PaceMeter();
      let [sent, shown] = [0, 0];
      set({ ...base, ...still, sent, waits: undefined });
      void startTransfer(file, cutId, goesOn, {
        onProgress(bytes) {
          const now = Date.now();
          sent = bytes;
          meter.note(bytes, now);
          if (now - shown < SHOW_EVERY_MILLISECONDS) return;
          shown = now;
          set({ ...base, sent, waits: undefined, ...meter.pace(file.size) });
        },
        onWait: () => set({ ...base, ...still, sent, waits: 'line' }),
        onEnd: () => end(cutId),
        onRefused(said) {
          end(cutId);
          trouble(`“${file.name}” stands still. ${said || 'Pick the file again on its page to go on.'}`);
        },
      });
    },
    [set, end, trouble],
  );

  const take = useCallback(
    async (file: File, taken: Taken) => {
      const { cutId, videoId } = taken;
      if (mine.current.has(cutId)) return;
      const letGo = await holdTransfer(cutId);
      if (!letGo) return say(`“${file.name}” comes in from another window already.`);
      mine.current.set(cutId, letGo);
      void keepFile(cutId, file);
      noteUnsaved('arriving', 1);
      const fields = { cutId, videoId, fileName: file.name, sent: taken.received, total: file.size };
      set({ ...fields, bytesPerSecond: 0, secondsLeft: undefined, waits: 'turn' });
      queue.current.push(() => carry(file, taken));
      next();
    },
    [set, carry, next, say],
  );

  const announce = useCallback(async (files: readonly File[], more: object): Promise<Answer[]> => {
    setUnheard((count) => count + files.length);
    noteUnsaved('arriving', 1);
    try {
      const described = await Promise.all(
        files.map(async (file) => {
          return { fileName: file.name, size: file.size, fingerprint: await fingerprintOf(file), ...more };
        }),
      );
      return (await askUntilAnswered<{ files: Answer[] }>('/api/videos', { files: described })).files;
    } finally {
      setUnheard((count) => count - files.length);
      noteUnsaved('arriving', -1);
    }
  }, []);

  /** Whether what has come of a transfer that broke off is the start of this very file. */
  const isSame = useCallback(async (file: File, cutId: string): Promise<boolean> => {
    for (;;) {
      try {
        const upTo = await bytesHere(cutId);
        if (!upTo) return true;
        const digest = await proofOfStart(file, upTo);
        await ask(`/api/cuts/${cutId}`, { method: 'POST', json: { upTo, digest } });
        return true;
      } catch (error) {
        if (error instanceof AskError && error.status === 422) return false;
        if (error instanceof AskError && !error.mayPass && error.status !== 409) throw error;
        await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MILLISECONDS));
      }
    }
  }, []);

  const bring = useCallback(
    async (given: Iterable<File>, videoId?: string) => {
      const { videos, others } = videosAmong([...given]);
      if (others.length > 0) {
        const names = new Intl.ListFormat('en').format(others.map(({ name }) => `“${name}”`));
        trouble(`Left out, since no video: ${names}. Drop marker files and pictures on their video’s page.`);
      }
      if (videos.length === 0) return;
      const alone = videos.length === 1 && !videoId;
      const settle = async (file: File, answer: Answer | undefined): Promise<void> => {
        if (!answer) return;
        if ('refused' in answer) return trouble(answer.refused);
        if ('known' in answer) {
          const again = await sure({
            title: `“${file.name}” is here already`,
            follows: [`It is the file of “${answer.known.title}”. A second video of it would be sent on its own.`],
            yes: 'Make a second video',
            no: alone ? 'Open the first one' : 'Leave it out',
          });
          if (again) return settle(file, (await announce([file], { videoId, anyway: true }))[0]);
          if (alone) router.push(`/videos/${answer.known.videoId}`);
          return;
        }
        if (answer.goesOn && !(await isSame(file, answer.cutId))) {
          say(`“${file.name}” is not the file that broke off. It comes in as a new video.`);
          return settle(file, (await announce([file], { videoId, fingerprint: undefined }))[0]);
        }
        await take(file, answer);
        if (alone) router.push(`/videos/${answer.videoId}`);
      };
      try {
        const answers = await announce(videos, { videoId });
        // All that need no question are on their way before the first question is asked.
        const made = answers.flatMap((answer) => ('videoId' in answer ? [answer.videoId] : []));
        if (!videoId && made.length > 1) setAdded(made);
        const asked = (index: number) => 'known' in (answers[index] ?? {});
        for (const [index, file] of videos.entries()) if (!asked(index)) await settle(file, answers[index]);
        for (const [index, file] of videos.entries()) if (asked(index)) await settle(file, answers[index]);
      } catch (error) {
        trouble(error);
      }
    },
    [announce, isSame, take, router, trouble, say, sure],
  );

  const goOn = useCallback(
    async (file: File, fingerprint: string | undefined) => {
      if (fingerprint !== undefined && (await fingerprintOf(file)) !== fingerprint) {
        trouble(
          `“${file.name}” is another file than the one that broke off. Pick that one, or add this one as a new video.`,
        );
        return;
      }
      await bring([file]);
    },
    [bring, trouble],
  );

  const goOnWith = useCallback(
    async (kept: KeptFile) => {
      // Another window may have it; then nothing is asked, and nothing said.
      const letGo = await holdTransfer(kept.cutId);
      if (!letGo) return;
      letGo();
      const file = await kept.open();
      if (file) await bring([file]);
      else trouble(`“${kept.name}” could not be opened again. Pick it on its page to go on.`);
    },
    [bring, trouble],
  );

  useEffect(() => whenIdle(readyToCarry), []);
  const busy = arrivals.size > 0;
  useEffect(() => {
    if (!busy) return;
    const say = () => {
      const cuts = [...mine.current.keys()];
      if (cuts.length > 0) void ask('/api/waiting', { method: 'POST', json: { cuts } }).catch(() => undefined);
    };
    const timer = setInterval(say, SAY_EVERY_MILLISECONDS);
    return () => clearInterval(timer);
  }, [busy]);

  const value = useMemo(
    () => ({ arrivals, added, putAway: () => setAdded([]), unheard, bring, goOn, goOnWith }),
    [arrivals, added, unheard, bring, goOn, goOnWith],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

'use client';

import { useRouter } from 'next/navigation';
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { Upload } from 'tus-js-client';
import { PaceMeter, type TransferPace } from '@/core/delivery';
import { ask } from '../ask';
import { useNotices } from '../notices';
import { fingerprintOf } from './fingerprint';

/** A file on its way from this page to Kettle Drop. */
export interface Arrival extends TransferPace {
  cutId: string;
  videoId: string;
  fileName: string;
  sent: number;
  total: number;
  /** Set while the line is gone; the transfer goes on by itself. */
  waits: boolean;
}

interface Arrivals {
  arrivals: Map<string, Arrival>;
  /** Starts bringing files in, as new videos or as better cuts of one; a single new one opens its Sheet. */
  bring(files: Iterable<File>, videoId?: string): Promise<void>;
  /** Goes on with a transfer that broke off, if the file is the same. */
  goOn(file: File, fingerprint: string | undefined): Promise<void>;
}

const Context = createContext<Arrivals>({ arrivals: new Map(), bring: async () => {}, goOn: async () => {} });

/** The transfers of this page. */
export const useArrivals = () => useContext(Context);

/** Pauses between tries while the server is away; after the last one the transfer stands until the page is told. */
const RETRY_MILLISECONDS = [0, 500, 1000, 2000, 3000, ...Array.from({ length: 200 }, () => 5000)];

const SHOW_EVERY_MILLISECONDS = 250;

/** Carries files in by tus for as long as any page of Kettle Drop is open, whichever place is shown. */
export function ArrivalsProvider({ children }: { children: ReactNode }) {
  const [arrivals, setArrivals] = useState(new Map<string, Arrival>());
  const running = useRef(new Set<string>());
  const router = useRouter();
  const { trouble } = useNotices();

  const set = useCallback((arrival: Arrival) => setArrivals((all) => new Map(all).set(arrival.cutId, arrival)), []);
  const end = useCallback((cutId: string) => {
    running.current.delete(cutId);
    setArrivals((all) => {
      const rest = new Map(all);
      rest.delete(cutId);
      return rest;
    });
  }, []);

  const start = useCallback(
    (file: File, cutId: string, videoId: string, goesOn: boolean) => {
      if (running.current.has(cutId)) return;
      running.current.add(cutId);
      const meter = new PaceMeter();
      let shown = 0;
      const base = { cutId, videoId, fileName: file.name, total: file.size };
      let sent = 0;
      set({ ...base, sent, waits: false, bytesPerSecond: 0, secondsLeft: undefined });
      const upload = new Upload(file, {
        endpoint: '/api/arrivals',
        uploadUrl: goesOn ? `/api/arrivals/${cutId}` : undefined,
        metadata: { cutId },
        retryDelays: RETRY_MILLISECONDS,
        storeFingerprintForResuming: false,
        onProgress(bytes) {
          const now = Date.now();
          sent = bytes;
          meter.note(bytes, now);
          if (now - shown < SHOW_EVERY_MILLISECONDS) return;
          shown = now;
          set({ ...base, sent, waits: false, ...meter.pace(file.size) });
        },
        onShouldRetry(error) {
          const status = error.originalResponse?.getStatus() ?? 0;
          if (status >= 400 && status < 500 && status !== 409 && status !== 423) return false;
          if (status === 507) return false;
          set({ ...base, sent, waits: true, bytesPerSecond: 0, secondsLeft: undefined });
          return true;
        },
        onSuccess: () => end(cutId),
        onError(error) {
          end(cutId);
          const said = 'originalResponse' in error ? error.originalResponse?.getBody() : '';
          trouble(`“${file.name}” stands still. ${said || 'Pick the file again on its Sheet to go on.'}`);
        },
      });
      upload.start();
    },
    [set, end, trouble],
  );

  const bring = useCallback(
    async (files: Iterable<File>, videoId?: string) => {
      const all = [...files];
      for (const file of all) {
        try {
          const fingerprint = await fingerprintOf(file);
          const json = { fileName: file.name, size: file.size, fingerprint, videoId };
          const made = await ask<{ videoId: string; cutId: string; goesOn: boolean }>('/api/videos', {
            method: 'POST',
            json,
          });
          start(file, made.cutId, made.videoId, made.goesOn);
          if (all.length === 1 && !videoId) router.push(`/videos/${made.videoId}`);
        } catch (error) {
          trouble(error);
        }
      }
    },
    [start, router, trouble],
  );

  const goOn = useCallback(
    async (file: File, fingerprint: string | undefined) => {
      if ((await fingerprintOf(file)) !== fingerprint) {
        trouble(
          `“${file.name}” is another file than the one that broke off. Pick that one, or bring this as a new cut.`,
        );
        return;
      }
      await bring([file]);
    },
    [bring, trouble],
  );

  const busy = arrivals.size > 0;
  useEffect(() => {
    if (!busy) return;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [busy]);

  const value = useMemo(() => ({ arrivals, bring, goOn }), [arrivals, bring, goOn]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

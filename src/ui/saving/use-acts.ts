'use client';

import { type QueryKey, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import type { Reached } from '@/desk/changes/reach';
import { AskError, type AskInit, ask, type ChangedField } from '../ask';
import { useNotices } from '../notices';
import { noteOwnChanges } from '../own-changes';
import { reachedWords } from '../reached';
import { useConflicts } from './conflicts';
import { noteUnsaved } from './unsaved';

/** How saving ended: it is kept; it was refused for what it is; or another window's value was kept instead. */
export type SaveEnd = 'saved' | 'refused' | 'theirs';

/** What a change was made on, by field, beside the change itself. */
type WithOn = { on?: Record<string, unknown>; put?: { id: string; on?: Record<string, unknown> }[] };

/** A change made on the value that a field has now, so that it is kept over that. */
function madeOnNow(json: unknown, { field, now, id }: ChangedField): unknown {
  const change = json as WithOn;
  if (!change.put) return { ...change, on: { ...change.on, [field]: now } };
  const put = change.put.map((each) => (each.id === id ? { ...each, on: { ...each.on, [field]: now } } : each));
  return { ...change, put };
}

/** The value that a change wishes for a field. */
function wishedIn(json: unknown, { field, id }: ChangedField): unknown {
  const { set, put, ...fields } = json as { set?: Record<string, unknown>; put?: { id: string }[] } & WithOn;
  const marker = put?.find((each) => each.id === id);
  return ((marker ?? set ?? fields) as Record<string, unknown>)[field];
}

const UNEXPECTED_TRIES = 5;
const PAUSES = [500, 1000, 2000, 4000, 8000];

/** Waits before the next try, no longer than until the line is back. */
const untilTry = (tries: number) =>
  new Promise<void>((resolve) => {
    const go = () => {
      clearTimeout(timer);
      window.removeEventListener('online', go);
      resolve();
    };
    const timer = setTimeout(go, PAUSES[Math.min(tries, PAUSES.length - 1)]);
    window.addEventListener('online', go);
  });

/**
 * Things that are done at once: each is asked for, what it concerns is read again, and the videos that it reaches, or what
 * went wrong, are said.
 * @param concerns what is read again, which has to stay the same; everything where not given
 * @param but a video that is reached without saying
 */
export function useActs(concerns?: QueryKey, but?: string) {
  const client = useQueryClient();
  const { say, trouble } = useNotices();
  const askWhose = useConflicts();
  const [underWay, setUnderWay] = useState(0);
  const queryKey = useRef(concerns).current;
  /** The changes that what is done now has made. */
  const own = useRef<number[]>([]);
  // One thing is done after the other, so that an older value never arrives last and undo takes back what came before it.
  const queue = useRef<Promise<unknown>>(Promise.resolve());

  const inTurn = useCallback(
    (work: () => Promise<SaveEnd>): Promise<SaveEnd> => {
      setUnderWay((count) => count + 1);
      noteUnsaved('underWay', 1);
      const done = queue.current.then(async () => {
        try {
          return await work();
        } catch (error) {
          trouble(error);
          return 'refused';
        } finally {
          const made = own.current.splice(0);
          // Only what has been read again since is no news: where that failed, the change is read when it is heard of.
          await client.invalidateQueries({ queryKey }, { throwOnError: true }).then(
            () => queryKey && noteOwnChanges(made, queryKey),
            () => undefined,
          );
          setUnderWay((count) => count - 1);
          noteUnsaved('underWay', -1);
        }
      });
      queue.current = done;
      return done;
    },
    [client, trouble, queryKey],
  );

  const once = useCallback(
    async (address: string, init: AskInit) => {
      const changes = (ids: readonly number[]) => void own.current.push(...ids);
      const { reached, kept = [] } = await ask<{ reached?: Reached[]; kept?: string[] }>(address, { ...init, changes });
      if (reached) say(reachedWords(reached, but));
      for (const what of kept) say(what);
    },
    [say, but],
  );

  /** Does something that a second try might do twice. Whether it went well is returned. */
  const act = useCallback(
    async (address: string, init: AskInit): Promise<boolean> => {
      const end = await inTurn(async () => {
        await once(address, init);
        return 'saved';
      });
      return end === 'saved';
    },
    [inTurn, once],
  );

  /**
   * Saves a value: it is tried again until Kettle Drop has it, or refuses it for what it is. Where another window has changed
   * the field that it was made `on`, both are shown.
   */
  const save = useCallback(
    (address: string, init: AskInit): Promise<SaveEnd> =>
      inTurn(async () => {
        let [json, waits] = [init.json, false];
        try {
          for (let tries = 0; ; ) {
            try {
              await once(address, { ...init, json });
              return 'saved';
            } catch (error) {
              if (!(error instanceof AskError)) throw error;
              if (error.changed) {
                const whose = await askWhose(error.changed, wishedIn(json, error.changed));
                if (whose === 'theirs') return 'theirs';
                json = madeOnNow(json, error.changed);
                continue;
              }
              // What nobody expected may pass, too, but not for ever.
              if (!error.mayPass && !(error.status === 500 && tries < UNEXPECTED_TRIES)) throw error;
              if (!waits) noteUnsaved('waiting', 1);
              waits = true;
              await untilTry(tries);
              tries += 1;
            }
          }
        } finally {
          if (waits) noteUnsaved('waiting', -1);
        }
      }),
    [inTurn, once, askWhose],
  );
  return { act, save, saving: underWay > 0 };
}

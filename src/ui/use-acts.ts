'use client';

import { type QueryKey, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import type { Reached } from '@/desk/reach';
import { ask } from './ask';
import { useNotices } from './notices';
import { reachedWords } from './reached';

/**
 * Things that are done at once: each is asked for, what it concerns is read again, and the videos that it reaches, or what
 * went wrong, are said.
 * @param concerns what is read again, which has to stay the same; everything where not given
 * @param but a video that is reached without saying
 */
export function useActs(concerns?: QueryKey, but?: string) {
  const client = useQueryClient();
  const { say, trouble } = useNotices();
  const [underWay, setUnderWay] = useState(0);
  const queryKey = useRef(concerns).current;
  // One thing is done after the other, so that an older value never arrives last and undo takes back what came before it.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  /** Whether it went well is returned. */
  const act = useCallback(
    (address: string, init: Parameters<typeof ask>[1]): Promise<boolean> => {
      setUnderWay((count) => count + 1);
      const done = queue.current.then(async () => {
        try {
          const { reached } = await ask<{ reached?: Reached[] }>(address, init);
          if (reached) say(reachedWords(reached, but));
          return true;
        } catch (error) {
          trouble(error);
          return false;
        } finally {
          await client.invalidateQueries({ queryKey });
          setUnderWay((count) => count - 1);
        }
      });
      queue.current = done;
      return done;
    },
    [client, say, trouble, queryKey, but],
  );
  return { act, saving: underWay > 0 };
}

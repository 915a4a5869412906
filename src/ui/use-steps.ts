'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import type { Reached } from '@/desk/reach';
import { ask } from './ask';
import { useNotices } from './notices';
import { reachedWords } from './reached';

/**
 * Things that are done at once and read back: asking, saying which videos they reach, or what went wrong, and steps back
 * and forth. @param subject what the changes are written down under
 */
export function useSteps(subject: string) {
  const client = useQueryClient();
  const { say, trouble } = useNotices();
  /** Whether it went well is returned. */
  const act = useCallback(
    async (address: string, init: Parameters<typeof ask>[1]): Promise<boolean> => {
      try {
        const { reached } = await ask<{ reached?: Reached[] }>(address, init);
        if (reached) say(reachedWords(reached));
        return true;
      } catch (error) {
        trouble(error);
        return false;
      } finally {
        await client.invalidateQueries();
      }
    },
    [client, say, trouble],
  );
  return useMemo(() => {
    const step = (way: 'undo' | 'redo') => act(`/api/steps/${subject}`, { method: 'POST', json: { step: way } });
    return { act, undo: () => step('undo'), redo: () => step('redo') };
  }, [act, subject]);
}

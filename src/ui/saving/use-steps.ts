'use client';

import { useMemo } from 'react';
import { useActs } from './use-acts';

/** What can be done on a page, with steps back and forth. @param subject what its changes are written down under */
export function useSteps(subject: string) {
  const { act, save } = useActs();
  return useMemo(() => {
    const step = (way: 'undo' | 'redo') => act(`/api/steps/${subject}`, { method: 'POST', json: { step: way } });
    return { act, save, undo: () => step('undo'), redo: () => step('redo') };
  }, [act, save, subject]);
}

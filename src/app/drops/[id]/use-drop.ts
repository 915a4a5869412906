'use client';

import { useQuery } from '@tanstack/react-query';
import type { DropAction } from '@/desk/actions/act-on-drop';
import type { DropPageView } from '@/desk/views/drop-page';
import { ask } from '@/ui/ask';
import { useActs } from '@/ui/saving/use-acts';

/** One drop as it is now, and what can be done with it. */
export function useDrop(first: DropPageView) {
  const at = `/api/drops/${first.id}`;
  const queryKey = ['drop', first.video.id, first.id];
  const { data } = useQuery({ queryKey, queryFn: () => ask<DropPageView>(at), initialData: first });
  const { act, saving } = useActs(queryKey);
  const post = (path: string, json: unknown) => act(`${at}${path}`, { method: 'POST', json });
  return {
    view: data,
    saving,
    act: (action: DropAction) => post('', { action }),
    settleMatches: (ways: readonly Record<string, unknown>[]) => post('/matches', { ways }),
    settleDifferences: (way: string) => post('/differences', { way }),
    read: () => post('/read', {}),
    putBack: (given: number) => post('/put-back', { given }),
  };
}

export type DropHandle = ReturnType<typeof useDrop>;

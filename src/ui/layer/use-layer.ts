'use client';

import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { type DefaultField, type LayerValues, withValues } from '@/core/defaults';
import type { LayerView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import type { SaveEnd } from '@/ui/saving/use-acts';
import { useSteps } from '@/ui/saving/use-steps';

/** A layer of defaults as it is now, and what can be done with it. Each call saves at once, and is shown at once. */
export function useLayer(first: LayerView) {
  const { layer, owner } = first;
  const address = `/api/defaults/${layer}/${owner}`;
  const { data: view } = useQuery({
    queryKey: ['layer', layer, owner],
    queryFn: () => ask<LayerView>(address),
    initialData: first,
  });
  const { save, undo, redo } = useSteps(owner);
  const [pending, setPending] = useState<LayerValues[]>([]);
  /** Sets a field; null leaves it to the layers beneath. @param on what it was changed from, where not as shown */
  const own = pending.reduce(withValues, view.set);
  const newest = useRef(own);
  newest.current = own;
  const put = (field: DefaultField, value: unknown, on?: unknown): Promise<SaveEnd> => {
    const set = { [field]: value ?? undefined } as LayerValues;
    const json = { [field]: value, on: { [field]: on === undefined ? (newest.current[field] ?? null) : on } };
    newest.current = withValues(newest.current, set);
    setPending((all) => [...all, set]);
    return save(address, { method: 'PATCH', json }).finally(() =>
      setPending((all) => all.filter((each) => each !== set)),
    );
  };
  return { view: { ...view, set: own }, put, undo, redo };
}

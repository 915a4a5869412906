'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type DefaultField, type LayerValues, withValues } from '@/core/defaults';
import type { LayerView } from '@/desk/views';
import { ask } from '@/ui/ask';
import { useSteps } from '@/ui/use-steps';

/** A layer of defaults as it is now, and what can be done with it. Each call saves at once, and is shown at once. */
export function useLayer(first: LayerView) {
  const { layer, owner } = first;
  const address = `/api/defaults/${layer}/${owner}`;
  const { data: view } = useQuery({
    queryKey: ['layer', layer, owner],
    queryFn: () => ask<LayerView>(address),
    initialData: first,
  });
  const { act, saving, undo, redo } = useSteps(owner);
  const [pending, setPending] = useState<LayerValues[]>([]);
  /** Sets a field; null leaves it to the layers beneath. Whether it went well is returned. */
  const put = (field: DefaultField, value: unknown): Promise<boolean> => {
    const set = { [field]: value ?? undefined } as LayerValues;
    setPending((all) => [...all, set]);
    return act(address, { method: 'PATCH', json: { [field]: value } }).finally(() =>
      setPending((all) => all.filter((each) => each !== set)),
    );
  };
  return { view: { ...view, set: pending.reduce(withValues, view.set) }, put, saving, undo, redo };
}

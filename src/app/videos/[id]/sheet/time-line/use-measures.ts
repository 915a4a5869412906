'use client';

import { useQuery } from '@tanstack/react-query';
import type { CutMeasures } from '@/core/delivery';
import type { SheetView } from '@/desk/views/views';
import { ask } from '@/ui/ask';

/** What is known of the sound and shots of the file in use; undefined until it has been looked over. */
export function useMeasures({ cut, measured }: Pick<SheetView, 'cut' | 'measured'>): CutMeasures | undefined {
  const { data } = useQuery({
    queryKey: ['measures', cut?.id],
    queryFn: () => ask<CutMeasures>(`/api/cuts/${cut?.id}/measures`),
    enabled: measured === 'ready',
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data;
}

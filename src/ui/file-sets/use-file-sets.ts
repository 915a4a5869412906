'use client';

import { useQuery } from '@tanstack/react-query';
import type { FileSetsView } from '@/desk/defaults/file-sets';
import { ask } from '../ask';

const NONE: FileSetsView = { sets: [], canUndo: false, canRedo: false, hardware: [] };

/** Every set of file settings, the ready ones first; none until they are here. */
export function useFileSets(first?: FileSetsView): FileSetsView {
  const { data = NONE } = useQuery({
    queryKey: ['file sets'],
    queryFn: () => ask<FileSetsView>('/api/file-sets'),
    initialData: first,
  });
  return data;
}

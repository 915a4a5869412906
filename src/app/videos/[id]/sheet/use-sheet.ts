'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import type { SheetView } from '@/desk/views';
import { ask } from '@/ui/ask';
import { useNotices } from '@/ui/notices';

/** Fields of the record that the Sheet sets. */
export type SheetEdit = Partial<Pick<SheetView, 'title' | 'description' | 'tags' | 'privacy' | 'chapterColours'>>;

/** A video's Sheet as it is now, and everything that can be done with it. Each call saves at once. */
export function useSheet(first: SheetView) {
  const { id } = first;
  const key = ['sheet', id];
  const client = useQueryClient();
  const { trouble } = useNotices();
  const [saving, setSaving] = useState(0);
  const { data } = useQuery({ queryKey: key, queryFn: () => ask<SheetView>(`/api/videos/${id}`), initialData: first });

  /** Asks, reads the Sheet again, and says what went wrong. Whether it went well is returned. */
  const act = useCallback(
    async (address: string, init: Parameters<typeof ask>[1]): Promise<boolean> => {
      setSaving((count) => count + 1);
      try {
        await ask(address, init);
        return true;
      } catch (error) {
        trouble(error);
        return false;
      } finally {
        await client.invalidateQueries({ queryKey: ['sheet', id] });
        setSaving((count) => count - 1);
      }
    },
    [client, id, trouble],
  );

  const at = `/api/videos/${id}`;
  return {
    sheet: data,
    saving: saving > 0,
    act,
    save: (edit: SheetEdit) => {
      // Shown at once; what the desk makes of it follows when it has been read again.
      client.setQueryData<SheetView>(key, (old) => old && { ...old, ...edit });
      return act(at, { method: 'PATCH', json: edit });
    },
    undo: () => act(`${at}/undo`, { method: 'POST' }),
    redo: () => act(`${at}/redo`, { method: 'POST' }),
    send: () => act(`${at}/send`, { method: 'POST' }),
    tick: (channelId: string, ticked: boolean) =>
      act(`${at}/channels`, { method: 'POST', json: { channelId, ticked } }),
  };
}

/** A Sheet with what can be done with it. */
export type SheetHandle = ReturnType<typeof useSheet>;

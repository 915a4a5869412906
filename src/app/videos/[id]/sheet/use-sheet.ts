'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import type { Privacy } from '@/core/delivery';
import type { OwnWords } from '@/core/drop';
import type { SheetView } from '@/desk/views';
import { ask } from '@/ui/ask';
import { useNotices } from '@/ui/notices';

/** Fields of the record that the Sheet sets. */
export type SheetEdit = Partial<
  Pick<SheetView, 'title' | 'description' | 'tags' | 'privacy' | 'declarations' | 'chapterChoice' | 'timeLine'>
>;

/** A video's Sheet as it is now, and everything that can be done with it. Each call saves at once. */
export function useSheet(first: SheetView) {
  const { id } = first;
  const key = ['sheet', id];
  const client = useQueryClient();
  const { trouble } = useNotices();
  const [saving, setSaving] = useState(0);
  const { data } = useQuery({ queryKey: key, queryFn: () => ask<SheetView>(`/api/videos/${id}`), initialData: first });

  // One thing is done after the other, so that an older value never arrives last and undo takes back what came before it.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  /** Asks, reads the Sheet again, and says what went wrong. Whether it went well is returned. */
  const act = useCallback(
    (address: string, init: Parameters<typeof ask>[1]): Promise<boolean> => {
      setSaving((count) => count + 1);
      const done = queue.current.then(async () => {
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
      });
      queue.current = done;
      return done;
    },
    [client, id, trouble],
  );

  const at = `/api/videos/${id}`;
  // What is being saved is shown at once, over whatever is read meanwhile, until it has been read back.
  const [pending, setPending] = useState<SheetEdit[]>([]);
  const save = (edit: SheetEdit): Promise<boolean> => {
    setPending((all) => [...all, edit]);
    return act(at, { method: 'PATCH', json: edit }).finally(() =>
      setPending((all) => all.filter((each) => each !== edit)),
    );
  };
  return {
    sheet: Object.assign({}, data, ...pending) as SheetView,
    saving: saving > 0,
    act,
    save,
    undo: () => act(`${at}/undo`, { method: 'POST' }),
    redo: () => act(`${at}/redo`, { method: 'POST' }),
    send: () => act(`${at}/send`, { method: 'POST' }),
    setOnChannel: (channelId: string, set: { privacy?: Privacy | null; own?: OwnWords }) =>
      act(`${at}/channels`, { method: 'PATCH', json: { channelId, ...set } }),
    tick: (channelId: string, ticked: boolean) =>
      act(`${at}/channels`, { method: 'POST', json: { channelId, ticked } }),
  };
}

/** A Sheet with what can be done with it. */
export type SheetHandle = ReturnType<typeof useSheet>;

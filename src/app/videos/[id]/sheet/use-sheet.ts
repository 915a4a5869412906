'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type DefaultField, type Defaults, isDefaultField, type LayerValues, valueOver } from '@/core/defaults';
import type { SheetView } from '@/desk/views';
import { ask } from '@/ui/ask';
import { useActs } from '@/ui/use-acts';

/** Fields of the layers as they are set on the video; null leaves one to the layers beneath. */
type LayerEdit = { [F in DefaultField]?: LayerValues[F] | null };

/** Fields of the record that the Sheet sets. */
export type SheetEdit = LayerEdit &
  Partial<Pick<SheetView, 'title' | 'summary' | 'episode' | 'chapterChoice' | 'timeLine'>> & {
    seriesId?: string | null;
  };

/** What can be set for one channel alone. */
export type ChannelEdit = LayerEdit & { title?: string; text?: string; textOver?: string };

/** Where a field that is set on the video moves up to. */
export interface MoveUp {
  field: DefaultField;
  to: 'video' | 'series' | 'channel';
  channelId?: string;
  toChannel?: string;
}

/** The Sheet as it will be when an edit is saved, as far as that can be told here. */
function withEdit(sheet: SheetView, edit: SheetEdit): SheetView {
  const next = { ...sheet, values: { ...sheet.values }, marks: { ...sheet.marks }, own: { ...sheet.own } };
  for (const [field, value] of Object.entries(edit)) {
    if (!isDefaultField(field)) {
      Object.assign(next, { [field]: value });
      continue;
    }
    const known: DefaultField = field;
    const { beneath, beneathFrom } = sheet.marks[known];
    const inForce = valueOver(
      known,
      beneath as Defaults[typeof known],
      (value ?? undefined) as LayerValues[typeof known],
    );
    Object.assign(next.values, { [known]: inForce });
    const from = value === null ? beneathFrom : [{ layer: 'video' as const, name: '' }];
    next.marks[known] = { ...sheet.marks[known], set: value !== null, from };
    Object.assign(next.own, { [known]: value ?? undefined });
  }
  return next;
}

/** A video's Sheet as it is now, and everything that can be done with it. Each call saves at once. */
export function useSheet(first: SheetView) {
  const { id } = first;
  const queryKey = ['sheet', id];
  const { data } = useQuery({ queryKey, queryFn: () => ask<SheetView>(`/api/videos/${id}`), initialData: first });
  const { act, saving } = useActs(queryKey, id);
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
    sheet: pending.reduce(withEdit, data),
    saving,
    act,
    save,
    undo: () => act(`${at}/undo`, { method: 'POST' }),
    redo: () => act(`${at}/redo`, { method: 'POST' }),
    send: () => act(`${at}/send`, { method: 'POST' }),
    moveUp: (move: MoveUp) => act(`${at}/move-up`, { method: 'POST', json: move }),
    setOnChannel: (channelId: string, set: ChannelEdit) =>
      act(`${at}/channels`, { method: 'PATCH', json: { channelId, set } }),
    setPlaylists: (channelId: string, playlists: string[] | null) =>
      act(`${at}/channels`, { method: 'PATCH', json: { channelId, playlists } }),
    tick: (channelId: string, ticked: boolean) =>
      act(`${at}/channels`, { method: 'POST', json: { channelId, ticked } }),
  };
}

/** A Sheet with what can be done with it. */
export type SheetHandle = ReturnType<typeof useSheet>;

'use client';

import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { type DefaultField, type Defaults, isDefaultField, type LayerValues, valueOver } from '@/core/defaults';
import type { RemediesOfCut } from '@/core/renditions';
import type { DropAction } from '@/desk/actions/act-on-drop';
import type { SheetView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { useNotices } from '@/ui/notices';
import { saveAllDrafts } from '@/ui/saving/unsaved';
import { type SaveEnd, useActs } from '@/ui/saving/use-acts';

/** Fields of the layers as they are set on the video; null leaves one to the layers beneath. */
type LayerEdit = { [F in DefaultField]?: LayerValues[F] | null };

/** What is put right in the file in use, as the record keeps it. */
const remediesOfCut = ({ remedies, cut }: SheetView): RemediesOfCut | null =>
  cut && Object.keys(remedies).length > 0 ? { cutId: cut.id, ...remedies } : null;

/** Fields of the record that the Sheet sets. */
export type SheetEdit = LayerEdit &
  Partial<
    Pick<SheetView, 'title' | 'summary' | 'episode' | 'timeLine' | 'meantBlanks' | 'wavedThrough' | 'framings'>
  > & {
    remedies?: RemediesOfCut | null;
    chapterChoice?: SheetView['chapterChoice'] | null;
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
    if (field === 'chapterChoice') {
      next.chaptersChosen = value === null ? undefined : 'here';
      if (value === null) continue;
    }
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

/** The values that an edit's fields have on the Sheet that it was made on; what is worked out there has none. */
function madeOn(sheet: SheetView, edit: SheetEdit): Record<string, unknown> {
  const plain: Record<string, unknown> = {
    title: sheet.title,
    summary: sheet.summary,
    episode: sheet.episode,
    timeLine: sheet.timeLine,
    chapterChoice: sheet.chaptersChosen === 'here' ? sheet.chapterChoice : null,
    meantBlanks: sheet.meantBlanks,
    wavedThrough: sheet.wavedThrough,
    remedies: remediesOfCut(sheet),
    framings: sheet.framings,
  };
  const entries = Object.keys(edit).flatMap((field): [string, unknown][] => {
    if (isDefaultField(field)) return [[field, sheet.own[field] ?? null]];
    return field in plain ? [[field, plain[field] ?? null]] : [];
  });
  return Object.fromEntries(entries);
}

/** A video's Sheet as it is now, and everything that can be done with it. Each call saves at once. */
export function useSheet(first: SheetView) {
  const { id } = first;
  const queryKey = ['sheet', id];
  const { data } = useQuery({ queryKey, queryFn: () => ask<SheetView>(`/api/videos/${id}`), initialData: first });
  const { act, save: saveAt, saving } = useActs(queryKey, id);
  const { trouble } = useNotices();
  const at = `/api/videos/${id}`;
  // What is being saved is shown at once, over whatever is read meanwhile, until it has been read back.
  const [pending, setPending] = useState<SheetEdit[]>([]);
  const sheet = pending.reduce(withEdit, data);
  const newest = useRef(sheet);
  newest.current = sheet;
  /** @param on by field, the value that it was changed from; what the Sheet shows where not given */
  const save = (edit: SheetEdit, on?: Record<string, unknown>): Promise<SaveEnd> => {
    const json = { ...edit, on: { ...madeOn(newest.current, edit), ...on } };
    newest.current = withEdit(newest.current, edit);
    setPending((all) => [...all, edit]);
    return saveAt(at, { method: 'PATCH', json }).finally(() =>
      setPending((all) => all.filter((each) => each !== edit)),
    );
  };
  /** Sends once everything that was typed is saved; what cannot be saved is to be settled first. */
  const whenSaved = async (send: () => Promise<boolean>): Promise<boolean> => {
    if (await saveAllDrafts()) return send();
    trouble('Nothing was sent: a text on this page could not be saved. Settle that first.');
    return false;
  };
  return {
    sheet,
    saving,
    act,
    saveAt,
    save,
    undo: () => act(`${at}/undo`, { method: 'POST' }),
    redo: () => act(`${at}/redo`, { method: 'POST' }),
    send: () => whenSaved(() => act(`${at}/send`, { method: 'POST' })),
    sendChanges: () => whenSaved(() => act(`${at}/send`, { method: 'PATCH' })),
    actOnDrop: (dropId: string, action: DropAction) =>
      whenSaved(() => act(`/api/drops/${dropId}`, { method: 'POST', json: { action } })),
    moveUp: (move: MoveUp) => act(`${at}/move-up`, { method: 'POST', json: move }),
    /** @param on by field, what was set for the channel where the change was made */
    setOnChannel: (channelId: string, set: ChannelEdit, on: Record<string, unknown> = {}) =>
      saveAt(`${at}/channels`, { method: 'PATCH', json: { channelId, set, on } }),
    setPlaylists: (channelId: string, playlists: string[] | null) =>
      saveAt(`${at}/channels`, { method: 'PATCH', json: { channelId, playlists } }),
    tick: (channelId: string, ticked: boolean) =>
      saveAt(`${at}/channels`, { method: 'POST', json: { channelId, ticked } }),
  };
}

/** A Sheet with what can be done with it. */
export type SheetHandle = ReturnType<typeof useSheet>;

'use client';

import { useRef, useState } from 'react';
import type { ImportWay, TableColumns } from '@/core/markers';
import { MARKER_FILE_ENDINGS } from '@/core/markers/file-endings';
import type { MarkerPreview } from '@/desk/video/markers';
import { useArrivals } from '@/ui/arrivals/arrivals';
import { ask } from '@/ui/ask';
import { useNotices } from '@/ui/notices';
import type { SheetHandle } from './use-sheet';

/** A marker file that was read and waits for the manager's word; without a file, the chapters inside the cut. */
export interface WaitingImport {
  name: string;
  file: File | undefined;
  columns: TableColumns | undefined;
  preview: MarkerPreview;
}

/**
 * Takes a file that was dropped or picked on the Sheet: a marker file onto the ruler, captions, a picture as the
 * thumbnail, a video as a better cut. A marker file waits to be looked at first.
 */
export function useTakeFile({ sheet, act }: SheetHandle) {
  const [waiting, setWaiting] = useState<WaitingImport>();
  const { say, trouble } = useNotices();
  const { bring } = useArrivals();
  const at = `/api/videos/${sheet.id}`;

  const address = ({ file, name, columns }: Pick<WaitingImport, 'file' | 'name' | 'columns'>, what: string) => {
    const query = new URLSearchParams(what);
    if (!file) query.set('inside', '');
    query.set('name', name);
    if (columns) query.set('columns', JSON.stringify(columns));
    return `${at}/markers?${query}`;
  };
  const newest = useRef(0);
  const look = async (from: Pick<WaitingImport, 'file' | 'name' | 'columns'>): Promise<void> => {
    newest.current += 1;
    const turn = newest.current;
    try {
      // Kept as bytes: a browser may no longer read a file whose choice has been cleared.
      const file = from.file && new File([await from.file.arrayBuffer()], from.file.name);
      const asked = { ...from, file };
      const preview = await ask<MarkerPreview>(address(asked, 'preview'), { method: 'POST', body: file });
      // An answer that was overtaken by a later choice of columns says nothing any more.
      if (turn === newest.current) setWaiting({ ...asked, preview });
    } catch (error) {
      trouble(error);
    }
  };
  const forget = () => {
    // What is still being read of it is not to be shown any more.
    newest.current += 1;
    setWaiting(undefined);
  };
  const takeMarkers = async (from: WaitingImport, way: ImportWay): Promise<void> => {
    forget();
    const done = await act(address(from, `way=${way}`), { method: 'POST', body: from.file });
    if (done) say(`The markers of ${from.name} are on the ruler. Tick the colours that viewers see.`);
  };
  const takeCaptions = async ({ file, name }: WaitingImport, language: string): Promise<void> => {
    forget();
    const query = new URLSearchParams({ language, name });
    const done = await act(`${at}/captions?${query}`, { method: 'POST', body: file });
    if (done) say(`The captions are on the player.`);
  };
  const takeFile = async (file: File): Promise<void> => {
    const name = file.name.toLowerCase();
    if (MARKER_FILE_ENDINGS.some((ending) => name.endsWith(ending))) {
      return look({ file, name: file.name, columns: undefined });
    }
    if (file.type.startsWith('image/')) {
      await act(`${at}/picture`, { method: 'POST', body: file });
      return;
    }
    if (file.type.startsWith('video/') || /\.(mkv|mov|mp4|webm)$/.test(name)) return bring([file], sheet.id);
    const markers = MARKER_FILE_ENDINGS.join(', ');
    trouble(`“${file.name}” is neither a marker file (${markers}), nor a picture, nor a video.`);
  };
  return {
    takeFile,
    takeInside: () => look({ file: undefined, name: 'the video', columns: undefined }),
    takeMarkers,
    takeCaptions,
    /** Reads a waiting table again, its columns as the manager says. */
    chooseColumns(columns: TableColumns) {
      if (!waiting?.preview.table) return;
      const { preview } = waiting;
      setWaiting({ ...waiting, columns, preview: { ...preview, table: { ...waiting.preview.table, columns } } });
      void look({ ...waiting, columns });
    },
    waiting,
    forget,
  };
}

/** What taking files on one Sheet gives. */
export type FileTaking = ReturnType<typeof useTakeFile>;

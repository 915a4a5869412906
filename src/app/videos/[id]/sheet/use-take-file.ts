'use client';

import { useState } from 'react';
import { type ImportWay, MARKER_FILE_ENDINGS } from '@/core/markers';
import type { MarkerPreview } from '@/desk/markers';
import { ask } from '@/ui/ask';
import { useNotices } from '@/ui/notices';
import type { SheetHandle } from './use-sheet';

/** A marker file that was read and waits for the manager's word. */
export interface WaitingImport {
  file: File;
  preview: MarkerPreview;
}

/**
 * Takes a file that was dropped or picked on the Sheet: a marker file onto the ruler, a picture as the thumbnail. Where a
 * marker file would change something that is there, or has findings, it waits to be looked at first.
 */
export function useTakeFile({ sheet, act }: SheetHandle) {
  const [waiting, setWaiting] = useState<WaitingImport>();
  const { say, trouble } = useNotices();
  const at = `/api/videos/${sheet.id}`;

  const takeMarkers = async (file: File, way: ImportWay): Promise<void> => {
    setWaiting(undefined);
    const done = await act(`${at}/markers?way=${way}`, { method: 'POST', body: file });
    if (done) say(`The markers of “${file.name}” are on the ruler. Tick the colours that viewers see.`);
  };
  const look = async (file: File): Promise<void> => {
    try {
      const preview = await ask<MarkerPreview>(`${at}/markers?preview`, { method: 'POST', body: file });
      if (preview.there === 0 && preview.findings.length === 0) await takeMarkers(file, 'replace');
      // Kept as bytes: a browser may no longer read a file whose choice has been cleared.
      else setWaiting({ file: new File([await file.arrayBuffer()], file.name), preview });
    } catch (error) {
      trouble(error);
    }
  };
  const takeFile = async (file: File): Promise<void> => {
    const name = file.name.toLowerCase();
    if (MARKER_FILE_ENDINGS.some((ending) => name.endsWith(ending))) return look(file);
    if (file.type.startsWith('image/')) {
      await act(`${at}/picture`, { method: 'POST', body: file });
      return;
    }
    const markers = MARKER_FILE_ENDINGS.join(', ');
    trouble(`“${file.name}” is neither a marker file (${markers}) nor a picture. New cuts are brought on the Board.`);
  };
  return { takeFile, takeMarkers, waiting, forget: () => setWaiting(undefined) };
}

/** What taking files on one Sheet gives. */
export type FileTaking = ReturnType<typeof useTakeFile>;

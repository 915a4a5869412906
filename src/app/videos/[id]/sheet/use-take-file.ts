'use client';

import { MARKER_FILE_ENDINGS } from '@/core/markers';
import { useNotices } from '@/ui/notices';
import type { SheetHandle } from './use-sheet';

/** Takes a file that was dropped or picked on the Sheet: a marker file onto the ruler, a picture as the thumbnail. */
export function useTakeFile({ sheet, act }: SheetHandle) {
  const { say, trouble } = useNotices();
  const at = `/api/videos/${sheet.id}`;
  return async (file: File): Promise<void> => {
    const name = file.name.toLowerCase();
    if (MARKER_FILE_ENDINGS.some((ending) => name.endsWith(ending))) {
      const done = await act(`${at}/markers`, { method: 'POST', body: file });
      if (done) say(`The markers of “${file.name}” are on the ruler. Tick the colours that viewers see.`);
    } else if (file.type.startsWith('image/')) {
      await act(`${at}/picture`, { method: 'POST', body: file });
    } else {
      const markers = MARKER_FILE_ENDINGS.join(', ');
      trouble(`“${file.name}” is neither a marker file (${markers}) nor a picture. New cuts are brought on the Board.`);
    }
  };
}

'use client';

import { X } from 'lucide-react';
import { Toast } from 'radix-ui';
import { BUTTONS } from '../button-words';
import type { Notice } from '../notice';

/** What went wrong stands longer; while it is read, under the pointer or with focus, its time does not run. */
const TROUBLE_MILLISECONDS = 20_000;

/** What was said, newest below. */
export function NoticeList({ notices, onClose }: { notices: readonly Notice[]; onClose: (id: number) => void }) {
  return (
    <Toast.Provider swipeDirection="down">
      {notices.map((notice) => (
        <Toast.Root
          key={notice.id}
          duration={notice.kind === 'said' ? 5000 : TROUBLE_MILLISECONDS}
          onOpenChange={(open) => !open && onClose(notice.id)}
          className={`enamel flex items-start gap-3 p-4 shadow-lg ${notice.kind === 'trouble' ? 'bg-snag-wash' : ''}`}
        >
          <Toast.Description className="flex-1">
            {notice.kind === 'trouble' && <b className="text-snag">▲ </b>}
            {notice.text}
          </Toast.Description>
          <Toast.Close aria-label={BUTTONS.close} className="rounded p-1 text-soft hover:text-ink">
            <X size={16} />
          </Toast.Close>
        </Toast.Root>
      ))}
      <Toast.Viewport className="notices fixed right-4 z-50 flex w-[min(420px,calc(100vw-32px))] flex-col gap-2" />
    </Toast.Provider>
  );
}

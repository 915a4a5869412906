'use client';

import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { FIELD_NAMES, isDefaultField } from '@/core/defaults';
import { BUTTONS } from '@/ui/button-words';
import { SheetDialog } from '@/ui/sheet-dialog';
import { whenIdle } from '@/ui/when-idle';
import type { OwnFieldsProps } from './own-fields';

const loadFields = () => import('./own-fields').then((part) => part.OwnFields);
const OwnFields = dynamic(loadFields);

/** What one channel gets, and what is written or chosen for it alone; everything else comes from the record. */
export function ChannelWords({ channel, handle }: OwnFieldsProps) {
  const [open, setOpen] = useState(false);
  useEffect(() => whenIdle(loadFields), []);
  const { own } = channel;
  const apart = [
    ...(own.title === undefined ? [] : ['title']),
    ...(own.text === undefined ? [] : ['text']),
    ...Object.keys(own)
      .filter(isDefaultField)
      // Who sees it is never left to be looked up.
      .map((field) =>
        field === 'privacy' && own.privacy
          ? `${FIELD_NAMES.privacy} (${channel.rules.privacies[own.privacy] ?? own.privacy})`
          : FIELD_NAMES[field],
      ),
  ];
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="mt-1.5 block text-left text-[13px] text-copper hover:underline"
      >
        {apart.length > 0 ? `Different here: ${apart.join(', ')}` : BUTTONS.sameText}
        {channel.recordMoved && <b className="block font-semibold text-snag">▲ the main text has changed since</b>}
      </button>
      {open && (
        <SheetDialog open onClose={() => setOpen(false)} title={`For ${channel.name} alone`} close={BUTTONS.close} wide>
          <OwnFields channel={channel} handle={handle} />
        </SheetDialog>
      )}
    </>
  );
}

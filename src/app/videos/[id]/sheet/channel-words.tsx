'use client';

import { useState } from 'react';
import type { Privacy } from '@/core/delivery';
import { textLength } from '@/core/words';
import type { SheetChannel } from '@/desk/views';
import { SheetDialog } from '@/ui/sheet-dialog';
import { DraftArea, DraftInput } from './draft-input';
import { FIELD, FieldRow } from './field-row';
import { LimitCount } from './limit-count';
import { useDraft } from './use-draft';
import type { SheetHandle } from './use-sheet';

interface ChannelWordsProps {
  channel: SheetChannel;
  handle: SheetHandle;
}

/** What one channel gets, and what is written or chosen for it alone; everything else comes from the record. */
export function ChannelWords({ channel, handle }: ChannelWordsProps) {
  const [open, setOpen] = useState(false);
  const { own, ownPrivacy } = channel;
  const apart = [own.title !== undefined && 'title', own.text !== undefined && 'text', ownPrivacy && 'privacy'];
  const says = apart.filter(Boolean).join(', ');
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="mt-1.5 block text-left text-[13px] text-copper hover:underline"
      >
        {says ? `Its own here: ${says}` : 'Words as in the record'}
      </button>
      {open && (
        <SheetDialog open onClose={() => setOpen(false)} title={`For ${channel.name} alone`} close="Close" wide>
          <OwnFields channel={channel} handle={handle} />
        </SheetDialog>
      )}
    </>
  );
}

function OwnFields({ channel, handle }: ChannelWordsProps) {
  const { rules, own, words, id } = channel;
  const { sheet, setOnChannel } = handle;
  const title = useDraft(own.title ?? '', (next) => setOnChannel(id, { own: { title: next } }));
  const text = useDraft(own.text ?? '', (next) => setOnChannel(id, { own: { text: next } }));
  const privacies = Object.entries(rules.privacies) as [Privacy, string][];
  return (
    <div className="grid gap-3.5">
      <p className="text-soft">Left empty, the record’s words go to {rules.name}.</p>
      {rules.title && (
        <FieldRow
          id="own-title"
          label="Title"
          below={
            <LimitCount
              used={textLength(title.text || words.title, rules.title.unit)}
              most={rules.title.most}
              site={rules.name}
            />
          }
        >
          <DraftInput id="own-title" draft={title} placeholder={sheet.title} />
        </FieldRow>
      )}
      {rules.text && (
        <FieldRow
          id="own-text"
          label="Text"
          below={
            <>
              <LimitCount used={textLength(words.text, rules.text.unit)} most={rules.text.most} site={rules.name} />
              {words.leftOut.length > 0 && <span>no room for {words.leftOut.join(' ')}</span>}
            </>
          }
        >
          <DraftArea id="own-text" draft={text} placeholder={sheet.description || 'Two or three lines'} />
        </FieldRow>
      )}
      <FieldRow id="own-privacy" label="Privacy">
        <select
          id="own-privacy"
          value={channel.ownPrivacy ?? ''}
          onChange={(event) => setOnChannel(id, { privacy: (event.target.value || null) as Privacy | null })}
          className={`${FIELD} max-w-80`}
        >
          <option value="">as the record: {rules.privacies[sheet.privacy] ?? `${rules.name} has no such thing`}</option>
          {privacies.map(([privacy, says]) => (
            <option key={privacy} value={privacy}>
              {says}
            </option>
          ))}
        </select>
      </FieldRow>
      <section aria-label="As it will be there">
        <h3 className="mb-1">As it will be there</h3>
        <div className="max-h-56 overflow-y-auto whitespace-pre-wrap rounded-lg bg-sunk px-3 py-2 text-sm">
          {words.title && <b className="block">{words.title}</b>}
          {words.text}
        </div>
      </section>
    </div>
  );
}

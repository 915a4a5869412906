'use client';

import { useState } from 'react';
import { fieldsTaken } from '@/core/declarations';
import { type DefaultField, isDefaultField, type Release } from '@/core/defaults';
import { textLength } from '@/core/words';
import type { SheetChannel } from '@/desk/views/views';
import { BUTTONS } from '@/ui/button-words';
import { DraftArea, DraftInput } from '@/ui/fields/draft-input';
import { FieldRow } from '@/ui/fields/field-row';
import { LayerFields } from '@/ui/fields/layer-fields';
import { LimitCount } from '@/ui/fields/limit-count';
import { useDraft } from '@/ui/saving/use-draft';
import { stockOf } from '../declarations-block';
import type { SheetHandle } from '../use-sheet';
import { There } from '../words/as-there';

export interface OwnFieldsProps {
  channel: SheetChannel;
  handle: SheetHandle;
}

const TIMED_FIELDS: Record<Release, readonly DefaultField[]> = {
  'by itself': [],
  'on my word': [],
  'at a time': ['opensAt', 'lateAtMost'],
  together: ['opensAt', 'lateAtMost'],
  'first showing': ['opensAt', 'lateAtMost'],
};

/** Fields that a channel of the site can have for itself, beside its words. */
function fieldsFor({ rules, values }: SheetChannel): DefaultField[] {
  return [
    'privacy',
    'release',
    ...(values.privacy.value === 'password' ? (['password'] as const) : []),
    ...TIMED_FIELDS[values.release.value],
    'fullFirst',
    ...(rules.title ? (['titlePattern'] as const) : []),
    ...(rules.text ? (['template', 'links'] as const) : []),
    ...(rules.tags ? (['tags'] as const) : []),
    ...fieldsTaken(rules.declares),
    ...(rules.captions ? (['sendCaptions'] as const) : []),
  ];
}

/** Words and fields of one channel alone, beside what they are elsewhere. */
export function OwnFields({ channel, handle }: OwnFieldsProps) {
  const { rules, own, id } = channel;
  const { sheet, setOnChannel, moveUp } = handle;
  // As it was when this was opened: what is reset meanwhile does not take the fields from under the pointer.
  const [opened] = useState(() => Object.keys(own).some(isDefaultField));
  const title = useDraft(own.title ?? '', (next, on) => setOnChannel(id, { title: next }, { title: on }), {
    key: `${sheet.id} ${id} title`,
    raw: own.title ?? null,
    empty: null,
  });
  const movesOf = (field: DefaultField) => [
    { says: 'Use on every channel', onMove: () => void moveUp({ field, channelId: id, to: 'video' }) },
    // A time is that of one video.
    ...(field === 'opensAt'
      ? []
      : [
          {
            says: `Make default for “${channel.name}”`,
            onMove: () => void moveUp({ field, channelId: id, to: 'channel', toChannel: id }),
          },
        ]),
    ...(sheet.series && field !== 'opensAt'
      ? [
          {
            says: `Make default for “${sheet.series.name}”`,
            onMove: () => void moveUp({ field, channelId: id, to: 'series' }),
          },
        ]
      : []),
  ];
  return (
    <div className="grid gap-3.5">
      <p className="text-soft">What you leave empty is the same as elsewhere.</p>
      {rules.title && (
        <FieldRow
          id="own-title"
          label="Title"
          below={
            <LimitCount
              used={textLength(title.text || channel.words.title, rules.title.unit)}
              most={rules.title.most}
              says={`on ${rules.name}`}
            />
          }
        >
          <DraftInput id="own-title" draft={title} placeholder={channel.words.title} />
        </FieldRow>
      )}
      {rules.text && <OwnText channel={channel} handle={handle} />}
      <section aria-label="Preview" className="grid gap-1.5">
        <h3>Preview</h3>
        <There channel={channel} />
      </section>
      <details open={opened}>
        <summary className="cursor-pointer py-1 text-copper">Everything else that can be set for this channel</summary>
        <div className="mt-2 grid gap-3.5">
          <LayerFields
            fields={fieldsFor(channel)}
            at="own-"
            own={own}
            beneath={channel.beneath}
            stock={{ ...stockOf(handle, id), sites: [rules] }}
            keptAs={`${sheet.id} ${id}`}
            put={(field, value, on = own[field] ?? null) => setOnChannel(id, { [field]: value }, { [field]: on })}
            moves={movesOf}
          />
        </div>
      </details>
    </div>
  );
}

/** The text written by hand for one channel, beside the record's: none of it is ever cut. */
function OwnText({ channel, handle }: OwnFieldsProps) {
  const { rules, own, words, id, recordText } = channel;
  const { sheet, setOnChannel } = handle;
  const text = useDraft(
    own.text ?? '',
    (next, on) => setOnChannel(id, { text: next, ...(on === null && { textOver: recordText }) }, { text: on }),
    { key: `${sheet.id} ${id} text`, raw: own.text ?? null, empty: null },
  );
  const limit = rules.text;
  return (
    <FieldRow
      id="own-text"
      label="Text"
      below={
        <>
          {limit && (
            <LimitCount used={textLength(words.text, limit.unit)} most={limit.most} says={`on ${rules.name}`} />
          )}
          {own.text === undefined ? (
            <button
              type="button"
              className="textlink"
              onClick={() => void setOnChannel(id, { text: recordText, textOver: recordText })}
            >
              {BUTTONS.writeOwnText}
            </button>
          ) : (
            <button type="button" className="textlink" onClick={() => void setOnChannel(id, { text: '' })}>
              Use the main text again
            </button>
          )}
        </>
      }
    >
      <DraftArea
        id="own-text"
        draft={text}
        placeholder={recordText || 'Two or three lines'}
        rows={own.text === undefined ? 4 : 10}
      />
      {own.text !== undefined && channel.recordMoved && (
        <div className="mt-1.5 rounded-lg bg-snag-wash px-3 py-2 text-sm">
          <p>
            <b className="text-snag">▲ </b>The main text has changed since you wrote this one. It is now:
          </p>
          <div className="my-1.5 max-h-40 overflow-y-auto whitespace-pre-wrap text-[13px]">{recordText}</div>
          <button
            type="button"
            className="textlink text-[13px]"
            onClick={() => void setOnChannel(id, { textOver: recordText })}
          >
            Keep mine
          </button>
        </div>
      )}
    </FieldRow>
  );
}

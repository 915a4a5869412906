'use client';

import { type FormEvent, useState } from 'react';
import { type DefaultField, FIELD_NAMES } from '@/core/defaults';
import { tagsFromText } from '@/core/words';
import { type Act, FIELDS_FOR_MANY } from '@/desk/many/many-act';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { CHOOSE_FIELD, Choose } from '@/ui/choose';
import { CHOICES, FLAGS } from '@/ui/fields/choices';
import { FIELD } from '@/ui/fields/field-row';
import { SheetDialog } from '@/ui/sheet-dialog';
import type { FormKind } from './form-kind';

interface ActFormProps {
  kind: FormKind;
  videos: number;
  series: readonly { id: string; name: string }[];
  onClose: () => void;
  onDone: (act: Act) => Promise<void>;
}

const TITLES: Record<FormKind, string> = {
  set: 'Set a field',
  tags: 'Add tags',
  playlist: 'Add to a playlist',
  series: 'Put in a series',
};

/** What an act on many videos has to be told first. */
export function ActForm({ kind, videos, series, onClose, onDone }: ActFormProps) {
  const [field, setField] = useState<DefaultField>('privacy');
  const [value, setValue] = useState('');
  const [text, setText] = useState('');
  const [seriesId, setSeriesId] = useState('');
  const [missing, setMissing] = useState(false);
  const done = (event: FormEvent) => {
    event.preventDefault();
    const given = isTyped(field) ? text : value;
    if (kind === 'set' && given === '' && !mayBeEmpty(field)) return setMissing(true);
    if (kind === 'set') void onDone({ do: 'set', field, value: givenValue(field, given) });
    if (kind === 'tags') void onDone({ do: 'tags', tags: tagsFromText(text) });
    if (kind === 'playlist') void onDone({ do: 'playlist', title: text.trim() });
    if (kind === 'series') void onDone({ do: 'series', seriesId: seriesId === '' ? null : seriesId });
  };
  const typed = (label: string, placeholder: string) => (
    <label className="grid gap-1">
      <span className="text-sm text-soft">{label}</span>
      <input
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setMissing(false);
        }}
        placeholder={placeholder}
        className={FIELD}
      />
    </label>
  );
  return (
    <SheetDialog
      open
      onClose={onClose}
      title={`${TITLES[kind]}: ${videos.toLocaleString('en')} selected`}
      close={BUTTONS.cancel}
    >
      <form onSubmit={done} className="grid gap-3.5">
        {kind === 'set' && (
          <>
            <Choose
              label="Field"
              value={field}
              options={FIELDS_FOR_MANY.map((each) => [each, FIELD_NAMES[each]] as const)}
              onChange={(next) => {
                setField(next);
                setValue('');
                setMissing(false);
              }}
              className={CHOOSE_FIELD}
            />
            {isTyped(field) ? (
              typed('Value', 'en, de, pt-BR')
            ) : (
              <Choose
                label="Value"
                value={value}
                options={mayBeEmpty(field) ? choicesOf(field) : [['', 'choose …'], ...choicesOf(field)]}
                onChange={(next) => {
                  setValue(next);
                  setMissing(false);
                }}
                className={CHOOSE_FIELD}
              />
            )}
          </>
        )}
        {missing && (
          <p role="alert" className="text-sm text-snag">
            Choose a value first.
          </p>
        )}
        {kind === 'tags' && typed('Tags, with commas between them', 'keel, scarf joint')}
        {kind === 'playlist' && typed('Its title, as on the channels', 'Plank by Plank')}
        {kind === 'series' && (
          <Choose
            label="Series"
            value={seriesId}
            options={[['', 'in no series'], ...series.map(({ id, name }): [string, string] => [id, name])]}
            onChange={setSeriesId}
            className={CHOOSE_FIELD}
          />
        )}
        <Button type="submit" look="press" className="justify-self-start">
          {BUTTONS.goOn}
        </Button>
      </form>
    </SheetDialog>
  );
}

/** A field in which nothing said is a choice, too. */
const mayBeEmpty = (field: DefaultField) => choicesOf(field).some(([choice]) => choice === '');
const isTyped = (field: DefaultField) => field === 'language';
const YES_NO = [
  ['yes', 'yes'],
  ['no', 'no'],
] as const;

const isYesOrNo = (field: DefaultField) => FLAGS[field] !== undefined || field === 'forChildren';

function choicesOf(field: DefaultField): readonly (readonly [string, string])[] {
  return CHOICES[field] ?? (isYesOrNo(field) ? YES_NO : []);
}

function givenValue(field: DefaultField, value: string): unknown {
  return isYesOrNo(field) ? value === 'yes' : value;
}

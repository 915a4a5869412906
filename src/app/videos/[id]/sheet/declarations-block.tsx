'use client';

import type { ReactNode } from 'react';
import { DECLARATION_FIELDS, type DeclarationField } from '@/core/declarations';
import type { DefaultField } from '@/core/defaults';
import { ChoiceCards } from '@/ui/fields/choice-cards';
import { CHILDREN_ANSWERS, FLAGS } from '@/ui/fields/choices';
import { FieldRow } from '@/ui/fields/field-row';
import { fieldLabel } from '@/ui/fields/layer-fields';
import { type FieldStock, ValueControl } from '@/ui/fields/value-control';
import { SheetMark } from './sheet-mark';
import type { SheetHandle } from './use-sheet';

type TakenField = DeclarationField | 'sendCaptions';

/** Which sites take a field, by their names; nobody asks for a field that no ticked channel takes. */
function takersOf({ sheet }: SheetHandle): Map<TakenField, string[]> {
  const takers = new Map<TakenField, string[]>();
  const add = (field: TakenField, name: string) =>
    takers.set(field, [...new Set([...(takers.get(field) ?? []), name])]);
  for (const { ticked, rules } of sheet.channels) {
    if (!ticked) continue;
    for (const field of rules.declares?.fields ?? []) add(field, rules.name);
    if (rules.captions && sheet.captions.length > 0) add('sendCaptions', rules.name);
  }
  return takers;
}

/** What the fields of a Sheet have to choose from. */
export function stockOf({ sheet }: SheetHandle, channelId?: string): FieldStock {
  const channels = sheet.channels.filter((each) => (channelId ? each.id === channelId : each.ticked));
  const categories = channels.find(({ rules }) => rules.declares?.categories)?.rules.declares?.categories ?? [];
  const playlists = [...new Set(channels.flatMap((each) => each.playlists.map(({ title }) => title)))];
  return { categories, channels: sheet.channels, playlists, shelf: sheet.shelf };
}

/** What is declared beside the words: stored once, offered where a ticked channel takes it, the sites named. */
export function DeclarationsBlock({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const takers = takersOf(handle);
  if (takers.size === 0) return null;
  const stock = stockOf(handle);
  const off = (field: TakenField) => sheet.switchedOff.some((each) => each.field === field);
  const control = (field: TakenField) => (
    <ValueControl
      id={`declared-${field}`}
      field={field}
      label={fieldLabel(field)}
      value={sheet.values[field]}
      own={sheet.own[field]}
      beneath={sheet.marks[field].beneath}
      stock={stock}
      keptAs={`${sheet.id} ${field}`}
      put={(value, on) => save({ [field]: value }, on === undefined ? {} : { [field]: on })}
    />
  );
  const below = (field: TakenField): ReactNode => (
    <>
      <span>to {takers.get(field)?.join(', ')}</span>
      {off(field) && <span className="text-held">off, because it is aimed at children</span>}
      <SheetMark handle={handle} field={field} />
    </>
  );
  const row = (field: DeclarationField) =>
    takers.has(field) && (
      <FieldRow key={field} id={`declared-${field}`} label={fieldLabel(field)} below={below(field)}>
        {control(field)}
      </FieldRow>
    );
  const isFlag = (field: DefaultField) => FLAGS[field] !== undefined;
  const flags = [...DECLARATION_FIELDS.filter(isFlag), 'sendCaptions' as const].filter((field) => takers.has(field));
  const lists: DeclarationField[] = ['credits', 'products'];
  const rows = DECLARATION_FIELDS.filter(
    (field) => !isFlag(field) && field !== 'forChildren' && !lists.includes(field),
  );
  return (
    <section aria-label="Declarations" className="enamel grid gap-3.5 px-4 py-3.5">
      <h2>Declarations</h2>
      {takers.has('forChildren') && <ForChildren handle={handle} below={below('forChildren')} />}
      <div className="grid items-start gap-3.5 lg:grid-cols-2">{rows.map(row)}</div>
      {lists.map(row)}
      {flags.length > 0 && (
        <div className="grid gap-1.5 sm:pl-[126px]">
          {flags.map((field) => (
            <div key={field} className="grid">
              {control(field)}
              <div className="flex flex-wrap gap-x-3.5 pl-7 text-[13px] text-soft">{below(field)}</div>
            </div>
          ))}
        </div>
      )}
    </section>
  );
}

/** A question of the law: nothing is chosen before somebody, or a layer, answers. */
function ForChildren({ handle, below }: { handle: SheetHandle; below: ReactNode }) {
  const { sheet, save } = handle;
  const { forChildren } = sheet.values;
  const off = sheet.switchedOff.map(({ what }) => what);
  // Each channel may be answered for by a layer of its own, though the record is not.
  const open = sheet.channels.some(({ ticked, rules, values }) => {
    return ticked && rules.declares?.fields.includes('forChildren') && values.forChildren.value === undefined;
  });
  return (
    <fieldset
      id="declared-forChildren"
      tabIndex={-1}
      className="grid gap-1 sm:grid-cols-[112px_minmax(0,1fr)] sm:gap-3.5"
    >
      <legend className="sr-only">Is it aimed at children?</legend>
      <span aria-hidden className="pt-2 text-sm text-soft">
        Aimed at children?
      </span>
      <div>
        <ChoiceCards
          name="for-children"
          chosen={forChildren}
          options={CHILDREN_ANSWERS}
          onChoose={(value) => void save({ forChildren: value })}
        />
        <div className="mt-1 flex flex-wrap gap-x-3.5 text-[13px] text-soft">
          {open && <span className="text-snag">▲ Required by law: choose yes or no.</span>}
          {below}
          {off.length > 0 && <span>switched off: {new Intl.ListFormat('en').format(off)}</span>}
        </div>
      </div>
    </fieldset>
  );
}

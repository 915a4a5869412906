'use client';

import type { ReactNode } from 'react';
import { type DeclarationField, fieldsTaken } from '@/core/declarations';
import type { DefaultField } from '@/core/defaults';
import { ChoiceCards } from '@/ui/fields/choice-cards';
import { CHILDREN_ANSWERS, FLAGS } from '@/ui/fields/choices';
import { Below, FieldRow } from '@/ui/fields/field-row';
import { fieldLabel } from '@/ui/fields/layer-fields';
import { type FieldStock, ValueControl } from '@/ui/fields/value-control';
import { DiffersOn, SheetMark } from './sheet-mark';
import type { SheetHandle } from './use-sheet';

type TakenField = DeclarationField | 'sendCaptions';

/** Fields that are asked for together, and the sites that ask for them, by their names. */
interface FieldGroup {
  name: string;
  fields: Set<TakenField>;
  sites: Set<string>;
}

/** The groups in which the ticked channels ask; nobody asks for a field that no ticked channel takes. */
function groupsOf({ sheet }: SheetHandle): FieldGroup[] {
  const groups = new Map<string, FieldGroup>();
  const add = (name: string, fields: readonly TakenField[], site: string) => {
    const group = groups.get(name) ?? { name, fields: new Set(), sites: new Set() };
    for (const field of fields) group.fields.add(field);
    if (fields.length > 0) groups.set(name, { ...group, sites: group.sites.add(site) });
  };
  for (const { ticked, rules } of sheet.channels) {
    if (!ticked) continue;
    for (const { name, fields } of rules.declares?.groups ?? []) add(name, fields, rules.name);
    if (rules.captions && sheet.captions.length > 0) add('Captions', ['sendCaptions'], rules.name);
  }
  return [...groups.values()];
}

/** What the fields of a Sheet have to choose from. */
export function stockOf({ sheet }: SheetHandle, channelId?: string): FieldStock {
  const channels = sheet.channels.filter((each) => (channelId ? each.id === channelId : each.ticked));
  const categories = channels.find(({ rules }) => rules.declares?.categories)?.rules.declares?.categories ?? [];
  const playlists = [...new Set(channels.flatMap((each) => each.playlists.map(({ title }) => title)))];
  return { categories, channels: sheet.channels, playlists, shelf: sheet.shelf };
}

/** What is declared beside the words: stored once, in the groups in which the ticked channels' sites ask for it. */
export function DeclarationsBlock({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const groups = groupsOf(handle);
  if (groups.length === 0) return null;
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
      {off(field) && <span className="text-held">Off, because it is aimed at children</span>}
      <DiffersOn handle={handle} field={field} />
    </>
  );
  const mark = (field: TakenField) => <SheetMark handle={handle} field={field} />;
  const isFlag = (field: DefaultField) => FLAGS[field] !== undefined;
  const wide: TakenField[] = ['credits', 'products'];
  const row = (field: TakenField) => (
    <div key={field} className={wide.includes(field) ? 'lg:col-span-2' : undefined}>
      <FieldRow id={`declared-${field}`} label={fieldLabel(field)} mark={mark(field)} below={below(field)}>
        {control(field)}
      </FieldRow>
    </div>
  );
  return (
    <div className="grid gap-4 px-4 py-3.5">
      {groups.map(({ name, fields, sites }) => {
        const [flags, rows] = [[...fields].filter(isFlag), [...fields].filter((field) => !isFlag(field))];
        return (
          <fieldset key={name} className="grid gap-3 border-line not-first:border-t not-first:pt-3">
            <legend className="sr-only">{name}</legend>
            <p className="flex flex-wrap items-baseline gap-x-2.5" aria-hidden>
              <b className="font-semibold">{name}</b>
              <span className="text-[13px] text-soft">{[...sites].join(', ')}</span>
            </p>
            {fields.has('forChildren') && (
              <ForChildren handle={handle} mark={mark('forChildren')} below={below('forChildren')} />
            )}
            <div className="grid items-start gap-3.5 empty:hidden lg:grid-cols-2">
              {rows.filter((field) => field !== 'forChildren').map(row)}
            </div>
            {flags.length > 0 && (
              <div className="grid gap-x-5 gap-y-1.5 sm:grid-cols-2">
                {flags.map((field) => (
                  <div key={field} className="grid">
                    <div className="flex flex-wrap items-center justify-between gap-x-3">
                      {control(field)}
                      {mark(field)}
                    </div>
                    <Below>{below(field)}</Below>
                  </div>
                ))}
              </div>
            )}
          </fieldset>
        );
      })}
    </div>
  );
}

/** A question of the law: nothing is chosen before somebody, or a layer, answers. */
function ForChildren({ handle, mark, below }: { handle: SheetHandle; mark: ReactNode; below: ReactNode }) {
  const { sheet, save } = handle;
  const { forChildren } = sheet.values;
  const off = sheet.switchedOff.map(({ what }) => what);
  // Each channel may be answered for by a layer of its own, though the record is not.
  const open = sheet.channels.some(({ ticked, rules, values }) => {
    return ticked && fieldsTaken(rules.declares).includes('forChildren') && values.forChildren.value === undefined;
  });
  return (
    <fieldset id="declared-forChildren" tabIndex={-1} className="grid gap-1">
      <legend className="sr-only">Is it aimed at children?</legend>
      <div className="flex items-center justify-between gap-3">
        <span aria-hidden className="text-sm text-soft">
          Aimed at children?
        </span>
        {mark}
      </div>
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
          {off.length > 0 && <span>Off because of this: {new Intl.ListFormat('en').format(off)}</span>}
        </div>
      </div>
    </fieldset>
  );
}

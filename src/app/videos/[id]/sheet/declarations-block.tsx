'use client';

import type { ReactNode } from 'react';
import { ADVERT_WAYS, COMMENT_WAYS, type DeclarationField, type Declarations, LICENCES } from '@/core/declarations';
import { TickBox } from '@/ui/tick-box';
import { ChoiceCards } from './choice-cards';
import { CreditsField } from './credits-field';
import { DraftInput } from './draft-input';
import { FIELD, FieldRow } from './field-row';
import { ProductsField } from './products-field';
import { useDraft } from './use-draft';
import type { SheetHandle } from './use-sheet';

/** Which sites take a field, by their names; nobody asks for a field that no ticked channel takes. */
function takersOf({ sheet }: SheetHandle): Map<DeclarationField, string[]> {
  const takers = new Map<DeclarationField, string[]>();
  for (const { ticked, rules } of sheet.channels) {
    if (!ticked) continue;
    for (const field of rules.declares?.fields ?? []) {
      takers.set(field, [...new Set([...(takers.get(field) ?? []), rules.name])]);
    }
  }
  return takers;
}

const COMMENT_NAMES: Record<Declarations['comments'], string> = {
  open: 'open',
  'hold doubtful': 'hold the doubtful ones',
  'hold all': 'hold all until they are read',
  off: 'off',
};

const FLAGS: [field: 'adultsOnly' | 'paidPlacement' | 'ratings' | 'embedding' | 'tellSubscribers', says: string][] = [
  ['adultsOnly', 'Only for people of age'],
  ['paidPlacement', 'Contains paid placement or sponsorship'],
  ['ratings', 'Show ratings'],
  ['embedding', 'May be shown on other pages'],
  ['tellSubscribers', 'Tell the subscribers'],
];

/** What is declared beside the words: stored once, offered where a ticked channel takes it, the sites named. */
export function DeclarationsBlock({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const set = sheet.declarations;
  const takers = takersOf(handle);
  const place = useDraft(set.place, (text) => save({ declarations: { ...set, place: text } }));
  const language = useDraft(set.language, (text) => save({ declarations: { ...set, language: text } }));
  if (takers.size === 0) return null;
  const change = (fields: Partial<Declarations>) => void save({ declarations: { ...set, ...fields } });
  const off = (field: DeclarationField) => sheet.switchedOff.some((each) => each.field === field);
  const row = (field: DeclarationField, label: string, content: ReactNode, more?: ReactNode) =>
    takers.has(field) && (
      <FieldRow
        key={field}
        id={`declared-${field}`}
        label={label}
        below={
          <>
            <span>to {takers.get(field)?.join(', ')}</span>
            {off(field) && <span className="text-held">off, because it is aimed at children</span>}
            {more}
          </>
        }
      >
        {content}
      </FieldRow>
    );
  const choice = <V extends string>(field: DeclarationField, value: V, options: readonly [V, string][]) => (
    <select
      id={`declared-${field}`}
      value={value}
      onChange={(event) => change({ [field]: event.target.value })}
      className={`${FIELD} max-w-72`}
    >
      {options.map(([option, says]) => (
        <option key={option} value={option}>
          {says}
        </option>
      ))}
    </select>
  );
  const categories = sheet.channels.find(({ ticked, rules }) => ticked && rules.declares?.categories)?.rules.declares
    ?.categories;
  return (
    <section aria-label="Declarations" className="enamel grid gap-3.5 px-4 py-3.5">
      <h2>Declarations</h2>
      {takers.has('forChildren') && <ForChildren handle={handle} sites={takers.get('forChildren') ?? []} />}
      <div className="grid items-start gap-3.5 lg:grid-cols-2">
        {row(
          'category',
          'Category',
          choice('category', set.category, [
            ['', 'none'],
            ...(categories ?? []).map(({ id, name }): [string, string] => [id, name]),
          ]),
        )}
        {row(
          'language',
          'Language',
          <DraftInput
            id="declared-language"
            draft={language}
            placeholder="en, de, pt-BR"
            className={`${FIELD} max-w-40`}
          />,
        )}
        {row(
          'licence',
          'Licence',
          choice(
            'licence',
            set.licence,
            LICENCES.map((each) => [each, each]),
          ),
        )}
        {row(
          'recordedOn',
          'Recorded on',
          <input
            id="declared-recordedOn"
            type="date"
            value={set.recordedOn}
            onChange={(event) => change({ recordedOn: event.target.value })}
            className={`${FIELD} max-w-48`}
          />,
        )}
        {row(
          'place',
          'Place',
          <DraftInput
            id="declared-place"
            draft={place}
            placeholder="left empty, nobody is told"
            className={`${FIELD} max-w-72`}
          />,
        )}
        {row(
          'comments',
          'Comments',
          choice(
            'comments',
            set.comments,
            COMMENT_WAYS.map((way) => [way, COMMENT_NAMES[way]]),
          ),
        )}
        {row(
          'adverts',
          'Adverts',
          choice(
            'adverts',
            set.adverts,
            ADVERT_WAYS.map((way) => [way, way]),
          ),
        )}
      </div>
      {row('credits', 'Credits', <CreditsField credits={set.credits} onChange={(credits) => change({ credits })} />)}
      {row(
        'products',
        'Products',
        <ProductsField products={set.products} onChange={(products) => change({ products })} />,
      )}
      {FLAGS.some(([field]) => takers.has(field)) && (
        <div className="grid gap-1.5 sm:pl-[126px]">
          {FLAGS.filter(([field]) => takers.has(field)).map(([field, says]) => (
            <div key={field} id={`declared-${field}`}>
              <TickBox ticked={set[field]} onTick={(ticked) => change({ [field]: ticked })}>
                {says}{' '}
                <span className="text-[13px] text-soft">
                  {off(field) ? 'off, because it is aimed at children' : `to ${takers.get(field)?.join(', ')}`}
                </span>
              </TickBox>
            </div>
          ))}
        </div>
      )}
    </section>
  );
}

const ANSWERS = [
  { value: false, name: 'No', says: 'it is for anyone' },
  { value: true, name: 'Yes', says: 'it is made for children' },
];

/** A question of the law: nothing is chosen before somebody answers. */
function ForChildren({ handle, sites }: { handle: SheetHandle; sites: string[] }) {
  const { sheet, save } = handle;
  const { forChildren } = sheet.declarations;
  const off = sheet.switchedOff.map(({ what }) => what);
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
          options={ANSWERS}
          onChoose={(value) => save({ declarations: { ...sheet.declarations, forChildren: value } })}
        />
        <p className="mt-1 text-[13px] text-soft">
          {forChildren === undefined && <span className="text-snag">▲ The law asks; nothing is assumed. </span>}
          to {sites.join(', ')}
          {off.length > 0 && ` · switched off: ${new Intl.ListFormat('en').format(off)}`}
        </p>
      </div>
    </fieldset>
  );
}

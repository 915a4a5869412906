'use client';

import dynamic from 'next/dynamic';
import type { CountryRule, Credit } from '@/core/declarations';
import type { DefaultField, LayerValues, ListValue, PictureHabit } from '@/core/defaults';
import type { SiteRules } from '@/core/delivery';
import type { Moment } from '@/core/release/moment';
import type { Rhythm } from '@/core/release/rhythm';
import type { FileHabit } from '@/core/renditions';
import { type LinkItem, type Shelf, tagsFromText } from '@/core/words';
import type { ChannelView } from '@/desk/views/views';
import { CHOOSE_FIELD, Choose } from '@/ui/choose';
import { TickBox } from '@/ui/tick-box';
import type { SaveEnd } from '../saving/use-acts';
import { useDraft } from '../saving/use-draft';
import { ChipsField } from './chips-field';
import { ChoiceCards } from './choice-cards';
import { CHILDREN_ANSWERS, CHOICES, FLAGS } from './choices';
import { ColoursField } from './colours-field';
import { CountriesField } from './countries-field';
import { CreditsField } from './credits-field';
import { DateField } from './date-field';
import { DraftInput } from './draft-input';
import { FIELD } from './field-row';
import { FileSettingsField } from './file-settings-field';
import { ApartField, LateField } from './hours-field';
import { TemplateField } from './lazy-template-field';
import { LinksField } from './links-field';
import { PictureHabitField } from './picture-habit-field';
import { ProductsField } from './products-field';

const RhythmField = dynamic(() => import('./rhythm-field').then((part) => part.RhythmField), { loading: () => null });
const OpeningTime = dynamic(() => import('../release/opening-time').then((part) => part.OpeningTime), {
  loading: () => null,
});

/** What the fields of a layer have to choose from. */
export interface FieldStock {
  categories: readonly { id: string; name: string }[];
  channels: readonly ChannelView[];
  playlists: readonly string[];
  shelf: Shelf;
  /** The sites that the layer is for, where that is known. */
  sites?: readonly SiteRules[];
}

export interface ValueControlProps {
  id: string;
  field: DefaultField;
  label: string;
  /** What is in force. */
  value: unknown;
  /** What this layer sets. */
  own: LayerValues[DefaultField];
  /** What the layers beneath give. */
  beneath: unknown;
  stock: FieldStock;
  /** Sets it on this layer; null leaves it to those beneath. Whether it went well is returned. */
  put: (value: unknown, on?: unknown) => Promise<SaveEnd>;
  /** What the browser keeps its texts under until they are saved. */
  keptAs: string;
}

const PLACEHOLDERS: Partial<Record<DefaultField, string>> = {
  language: 'en, de, pt-BR',
  place: 'Optional',
};

/** The control that fits a field's kind of value. */
export function ValueControl(props: ValueControlProps) {
  const { id, field, label, value, own, beneath, stock, put, keptAs } = props;
  const choices = field === 'category' ? categoryChoices(stock) : CHOICES[field];
  if (choices) {
    return (
      <Choose
        id={id}
        value={String(value)}
        options={choices}
        onChange={(next) => void put(next)}
        className={`${CHOOSE_FIELD} w-full max-w-80`}
      />
    );
  }
  const flag = FLAGS[field];
  if (flag) {
    return (
      <div id={id} className="pt-2">
        <TickBox ticked={value === true} onTick={(ticked) => void put(ticked)}>
          {flag}
        </TickBox>
      </div>
    );
  }
  switch (field) {
    case 'forChildren':
      return <ChoiceCards name={id} chosen={value} options={CHILDREN_ANSWERS} onChoose={put} />;
    case 'tags':
    case 'playlists':
      return (
        <ChipsField
          id={id}
          one={field === 'tags' ? 'tag' : 'playlist'}
          own={own as ListValue<string> | undefined}
          beneath={beneath as string[]}
          onChange={put}
          parse={field === 'tags' ? tagsFromText : (text) => [text.trim()].filter(Boolean)}
          placeholder={field === 'tags' ? 'commas or Enter between them' : 'its title, as on the channel'}
          known={field === 'playlists' ? stock.playlists : undefined}
        />
      );
    case 'links':
      return (
        <LinksField
          id={id}
          own={own as ListValue<LinkItem> | undefined}
          beneath={beneath as LinkItem[]}
          shelf={stock.shelf}
          onChange={put}
        />
      );
    case 'template':
    case 'titlePattern':
      return (
        <TemplateField
          id={id}
          label={label}
          value={value as string}
          own={own as string | undefined}
          keptAs={keptAs}
          save={put}
          shelf={Object.keys(stock.shelf)}
          oneLine={field === 'titlePattern'}
        />
      );
    case 'picture':
      return <PictureHabitField id={id} habit={value as PictureHabit} onChange={put} />;
    case 'file':
      return <FileSettingsField id={id} file={value as FileHabit} onChange={put} />;
    case 'credits':
      return <CreditsField id={id} credits={value as Credit[]} onChange={put} />;
    case 'products':
      return <ProductsField id={id} products={value as string[]} onChange={put} />;
    case 'countries':
      return <CountriesField id={id} rule={value as CountryRule} onChange={put} />;
    case 'chapterColours':
      return <ColoursField id={id} colours={value as string[]} onChange={put} />;
    case 'channels':
      return <ChannelTicks stock={stock} chosen={value as string[]} onChange={put} />;
    case 'lateAtMost':
      return <LateField id={id} hours={value as number} onChange={put} />;
    case 'hoursApart':
      return <ApartField id={id} hours={value as number} onChange={put} />;
    case 'rhythm':
      return <RhythmField id={id} rhythm={value as Rhythm | null} onChange={put} />;
    case 'opensAt':
      return <OpeningTime id={id} value={value as Moment | null} onChange={put} sites={stock.sites ?? []} />;
    case 'recordedOn':
      return <DateField id={id} day={value as string} onChange={put} />;
    default:
      return <TextControl {...props} />;
  }
}

const categoryChoices = ({ categories }: FieldStock): [string, string][] => [
  ['', 'none'],
  ...categories.map(({ id, name }): [string, string] => [id, name]),
];

function TextControl({ id, field, value, own, put, keptAs }: ValueControlProps) {
  const draft = useDraft(value as string, put, { key: keptAs, raw: own ?? null });
  return <DraftInput id={id} draft={draft} placeholder={PLACEHOLDERS[field]} className={`${FIELD} max-w-72`} />;
}

interface ChannelTicksProps {
  stock: FieldStock;
  chosen: string[];
  onChange: (chosen: string[]) => void;
}

function ChannelTicks({ stock, chosen, onChange }: ChannelTicksProps) {
  if (stock.channels.length === 0) return <p className="pt-2 text-soft">No channel is connected yet.</p>;
  return (
    <div className="grid gap-1.5 pt-2 sm:grid-cols-2">
      {stock.channels.map(({ id, name, siteName }) => (
        <TickBox
          key={id}
          ticked={chosen.includes(id)}
          onTick={(ticked) => onChange(ticked ? [...chosen, id] : chosen.filter((each) => each !== id))}
        >
          {name} <span className="text-[13px] text-soft">{siteName}</span>
        </TickBox>
      ))}
    </div>
  );
}

import { array, mixed, object, string } from 'yup';
import { DECLARATION_FIELDS } from '@/core/declarations';
import type { DefaultField } from '@/core/defaults';
import { idShape } from '../id-shape';
import { checkedValues } from '../layers/values-shape';

/** Fields that can be set on many videos at once: those that are one of a few, or yes and no. */
export const FIELDS_FOR_MANY = [
  'privacy',
  'release',
  ...DECLARATION_FIELDS.filter(
    (field) => !['credits', 'products', 'recordedOn', 'place', 'category', 'countries'].includes(field),
  ),
] as const satisfies readonly DefaultField[];

/** What can be done with many videos at once. */
export type Act =
  | { do: 'send' | 'open' | 'try again' | 'delete' }
  | { do: 'set'; field: DefaultField; value: unknown }
  | { do: 'tags'; tags: string[] }
  | { do: 'playlist'; title: string }
  | { do: 'series'; seriesId: string | null };

/** As many videos as one act takes. */
export const MOST_AT_ONCE = 5000;

const simple = ['send', 'open', 'try again', 'delete'] as const;

const actShape = object({
  do: string()
    .oneOf([...simple, 'set', 'tags', 'playlist', 'series'] as const)
    .required(),
  field: string()
    .oneOf(FIELDS_FOR_MANY)
    .when('do', ([what], shape) => (what === 'set' ? shape.required() : shape)),
  value: mixed(),
  tags: array(string().trim().min(1).max(200).required())
    .max(100)
    .when('do', ([what], shape) => (what === 'tags' ? shape.min(1, 'Type a tag first.').required() : shape)),
  title: string()
    .trim()
    .max(120)
    .when('do', ([what], shape) => (what === 'playlist' ? shape.required('Name a playlist first.') : shape)),
  seriesId: idShape().nullable(),
}).noUnknown();

const askedShape = object({
  ids: array(idShape().required())
    .min(1, 'Select a video first.')
    .max(MOST_AT_ONCE, `At most ${MOST_AT_ONCE.toLocaleString('en')} videos are taken at once.`)
    .required(),
  act: actShape.required(),
}).noUnknown();

/** What is asked for, and for which videos. @throws ValidationError */
export async function askedOfMany(input: unknown): Promise<{ ids: string[]; act: Act }> {
  const { ids, act } = await askedShape.validate(input, { stripUnknown: false });
  if (act.do === 'set') await checkedValues({ [act.field ?? '']: act.value });
  return { ids: [...new Set(ids)], act: act as Act };
}

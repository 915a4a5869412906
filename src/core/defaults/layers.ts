import {
  DEFAULT_FIELDS,
  type DefaultField,
  type Defaults,
  isListField,
  type LayerValues,
  PLAIN_DEFAULTS,
} from './values';

/** From the furthest to the nearest: the nearest that says something wins. */
export const LAYERS = ['site', 'channel', 'series', 'video', 'drop'] as const;
/** Where a value may come from; a drop is this video on this channel. */
export type Layer = (typeof LAYERS)[number];

/** A layer with what it sets, and the name that people know it by. */
export interface LayerAt {
  layer: Layer;
  name: string;
  values: LayerValues;
}

/** The layer that a value came from. */
export type Source = Pick<LayerAt, 'layer' | 'name'>;

/** A value with the layers that gave it, furthest first: several where a list was added to, none where nobody set it. */
export interface Given<V> {
  value: V;
  from: Source[];
}

/** Every field with its value and where that came from. */
export type InForce = { [F in DefaultField]: Given<Defaults[F]> };

const keyOf = (item: unknown) => (typeof item === 'string' ? item.toLocaleLowerCase('en') : JSON.stringify(item));

/** The items of both lists in order, each once; of two that differ in case only, the first stays. */
function joined(before: readonly unknown[], more: readonly unknown[]): unknown[] {
  const all = new Map<string, unknown>();
  for (const item of [...before, ...more]) if (!all.has(keyOf(item))) all.set(keyOf(item), item);
  return [...all.values()];
}

/**
 * A field's value with what one more layer sets over it: in its place, or for a list that adds, after it.
 * @param value in force so far
 * @param set what the next layer sets; undefined where it sets nothing
 */
export function valueOver<F extends DefaultField>(field: F, value: Defaults[F], set: LayerValues[F]): Defaults[F] {
  if (set === undefined) return value;
  if (!isListField(field)) return set as Defaults[F];
  const { way, items } = set as { way: 'replace' | 'add'; items: unknown[] };
  return joined(way === 'replace' ? [] : (value as unknown[]), items) as Defaults[F];
}

/** One field's value and where it came from. @param layers from the furthest to the nearest, as in `LAYERS` */
export function fieldInForce(field: DefaultField, layers: readonly LayerAt[]): Given<unknown> {
  let found: Given<unknown> = { value: PLAIN_DEFAULTS[field], from: [] };
  for (const { layer, name, values } of layers) {
    const set = values[field];
    if (set === undefined) continue;
    const adds = isListField(field) && (set as { way: string }).way === 'add';
    const value = valueOver(field, found.value as Defaults[DefaultField], set);
    found = { value, from: [...(adds ? found.from : []), { layer, name }] };
  }
  return found;
}

/**
 * What holds for a video: for each field the value of the nearest layer that sets it, lists with what nearer layers add.
 * @param layers from the furthest to the nearest, as in `LAYERS`
 */
export function inForce(layers: readonly LayerAt[]): InForce {
  return Object.fromEntries(DEFAULT_FIELDS.map((field) => [field, fieldInForce(field, layers)])) as InForce;
}

/** The values alone. */
export function valuesOf(fields: InForce): Defaults {
  return Object.fromEntries(DEFAULT_FIELDS.map((field) => [field, fields[field].value])) as unknown as Defaults;
}

/** A layer with some fields set anew; undefined leaves them to the layers beneath. */
export function withValues(values: LayerValues, set: Partial<LayerValues>): LayerValues {
  const all = Object.entries({ ...values, ...set });
  return Object.fromEntries(all.filter(([, value]) => value !== undefined)) as LayerValues;
}

const sets = (layers: readonly LayerAt[], field: DefaultField) =>
  JSON.stringify(layers.map(({ values }) => values[field] ?? null));

/** The fields that are in force otherwise by some layers than by others. Only what their layers set is compared. */
export function fieldsThatDiffer(some: readonly LayerAt[], others: readonly LayerAt[]): DefaultField[] {
  const set = new Set([...some, ...others].flatMap(({ values }) => Object.keys(values) as DefaultField[]));
  const value = (layers: readonly LayerAt[], field: DefaultField) => JSON.stringify(fieldInForce(field, layers).value);
  return [...set].filter((field) => {
    return sets(some, field) !== sets(others, field) && value(some, field) !== value(others, field);
  });
}

/** Where a value came from, in words: “the series Plank by Plank, this video”. */
export function sourceWords(from: readonly Source[]): string {
  const words = from.map(({ layer, name }) => {
    if (layer === 'video') return 'this video';
    if (layer === 'drop') return `this video on ${name}`;
    return `the ${layer} ${name}`;
  });
  return words.length === 0 ? 'nobody set it' : new Intl.ListFormat('en').format(words);
}

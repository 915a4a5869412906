import { array, boolean, lazy, mixed, number, object, string } from 'yup';
import {
  ADVERT_WAYS,
  BROADCAST_WAYS,
  COMMENT_WAYS,
  COUNTRY_CODES,
  COUNTRY_WAYS,
  LANGUAGE_TAG,
  LICENCES,
} from '@/core/declarations';
import { type DefaultField, isListField, type LayerValues, RELEASES } from '@/core/defaults';
import { PRIVACIES } from '@/core/delivery';
import { type Rhythm, resolved, rhythmFinding, zoneNamed } from '@/core/release';
import { isWithinReach } from '@/core/time';
import { type LinkItem, SHELF_NAME, uniqueTags } from '@/core/words';
import { idShape } from '../id-shape';
import { trimmed, trimmedSmall } from '../text-shape';

export const fractionShape = () =>
  object({ num: number().integer().required(), den: number().integer().min(1).required() })
    .noUnknown()
    .test(
      'reach',
      ({ path }) => `${path} lies beyond 1,000 hours`,
      (time) => time?.num === undefined || !(Number(time.den) >= 1) || isWithinReach({ num: time.num, den: time.den }),
    );

const creditShape = object({ role: trimmed().max(60).defined(), name: trimmed().max(80).defined() });

/** A day of the calendar, or nothing. */
const dayShape = () =>
  string().test('day', 'A recording date looks like 2026-11-25.', (day) => {
    if (!day) return true;
    const midnight = new Date(`${day}T00:00:00Z`);
    return (
      /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(midnight.getTime()) && midnight.toISOString().startsWith(day)
    );
  });

/** A template; what keeps it from being read is said where it stands, and keeps the video from being sent. */
const templateShape = (most: number, what: string) =>
  string().max(most, `${what} has at most ${most.toLocaleString('en')} characters.`);

/** The address of a link: of the web or of mail, and nothing that a page could run. */
export const urlShape = () =>
  trimmed()
    .max(2000, 'An address has at most 2,000 characters.')
    .matches(/^(?:https?:\/\/\S+|mailto:\S+@\S+)$/, 'An address starts with https:// and has no spaces.');

/** What a link on the shelf is called. */
export const shelfNameShape = () =>
  string().max(60).matches(SHELF_NAME, 'A name on the shelf has small letters, digits and hyphens: steam-box.');

const linkShape = lazy((item: { shelf?: string } | undefined) =>
  item?.shelf === undefined
    ? object({ label: trimmed().max(200).defined(), url: urlShape().required() }).noUnknown()
    : object({ shelf: shelfNameShape().required() }).noUnknown(),
);

export const momentShape = () =>
  fractionShape().test(
    'moment',
    'A moment lies at or after the start.',
    (at) => at === undefined || (at.num ?? 0) >= 0,
  );

const pictureShape = lazy((habit: { way?: string } | undefined) => {
  const way = string().oneOf(['none', 'moment', 'layout']).required();
  if (habit?.way === 'layout') {
    return object({
      way,
      at: momentShape().required(),
      band: string().oneOf(['below', 'beside']).required(),
    }).noUnknown();
  }
  return habit?.way === 'moment'
    ? object({ way, at: momentShape().required() }).noUnknown()
    : object({ way }).noUnknown();
});

/** A time at which a video opens: one that there is, said without doubt, and still to come. */
const openingTimeShape = object({
  wall: string()
    .matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?$/, 'A time looks like 2026-11-28T18:30:00.')
    .required(),
  zone: string()
    .max(60)
    .test('zone', 'Name the time zone by place, such as Europe/Berlin.', (zone) => zoneNamed(zone ?? '') !== undefined)
    .required(),
  which: string().oneOf(['first', 'second'] as const),
})
  .noUnknown()
  .test('to come', '', ({ wall, zone, which }, context) => {
    if (!wall || !zone || !zoneNamed(zone)) return true;
    const [wrong] = findingsOf({ wall, zone, which });
    return wrong === undefined || context.createError({ message: wrong });
  });

const rhythmShape = object({
  rule: string().max(300, 'A rule has at most 300 characters.').required(),
  from: string().max(10).required(),
  time: string().max(5).required(),
  zone: string().max(60).required(),
})
  .noUnknown()
  .test('rhythm', '', (rhythm, context) => {
    const wrong = rhythmFinding(rhythm as Rhythm);
    return wrong === undefined || context.createError({ message: wrong });
  });

function findingsOf(said: Parameters<typeof resolved>[0]): string[] {
  try {
    return resolved(said, new Date()).findings;
  } catch {
    return ['There is no such day or time. A time looks like 2026-11-28T18:30:00.'];
  }
}

const fileShape = lazy((habit: { way?: string } | undefined) => {
  const way = string().oneOf(['keep', 'set']).required();
  // Ready sets have names of their own for ids.
  const set = string()
    .matches(/^[a-z0-9-]{1,40}$/, 'A set of file settings is named by its id.')
    .required();
  return habit?.way === 'set' ? object({ way, set }).noUnknown() : object({ way }).noUnknown();
});

const countriesShape = object({
  way: string().oneOf(COUNTRY_WAYS).required(),
  codes: array(string().oneOf(COUNTRY_CODES, 'Name countries by their codes of two letters: CA, GB.').required())
    .max(COUNTRY_CODES.length)
    .required(),
}).noUnknown();

/** The shape of each field's value. */
const VALUE_SHAPES: Record<DefaultField, { validate(value: unknown, options?: object): Promise<unknown> }> = {
  titlePattern: templateShape(1000, 'The title’s pattern'),
  template: templateShape(50_000, 'The template'),
  tags: array(string().max(500).defined()).max(500, 'A video has at most 500 tags.').required(),
  links: array(linkShape).max(100, 'A video has at most 100 links.').required(),
  playlists: array(trimmed().min(1).max(300).required()).max(50).required(),
  privacy: string().oneOf(PRIVACIES),
  password: string().max(100, 'A password has at most 100 characters.').matches(/^\S*$/, {
    message: 'A password has no spaces, so that it can be passed on without mistakes.',
  }),
  release: string().oneOf(RELEASES),
  opensAt: openingTimeShape as never,
  hoursApart: number()
    .typeError('Say how many hours are to lie between two releases, from 0 to 720.')
    .min(0, 'Two releases are apart by 0 hours at the least.')
    .max(720, 'Two releases are apart by 720 hours (30 days) at the most.'),
  rhythm: rhythmShape as never,
  lateAtMost: number()
    .typeError('Say by how many hours it may open late, from 0 to 720.')
    .min(0, 'It opens late by 0 hours at the least.')
    .max(720, 'It opens late by 720 hours (30 days) at the most.'),
  fullFirst: boolean(),
  chapterColours: array(trimmedSmall().max(40).defined()).max(40).required(),
  sendCaptions: boolean(),
  picture: pictureShape as never,
  file: fileShape as never,
  sendFromInbox: boolean(),
  deleteFile: boolean(),
  uploadEarly: boolean(),
  deleteMadeFiles: boolean(),
  channels: array(idShape().required()).max(200).required(),
  category: string().max(60),
  language: string().matches(LANGUAGE_TAG, {
    message: 'Name the language by its tag, such as en or de.',
    excludeEmptyString: true,
  }),
  licence: string().oneOf(LICENCES),
  recordedOn: dayShape(),
  place: string().max(120, 'A place has at most 120 characters.'),
  forChildren: boolean(),
  adultsOnly: boolean(),
  countries: countriesShape,
  paidPlacement: boolean(),
  comments: string().oneOf(COMMENT_WAYS),
  ratings: boolean(),
  embedding: boolean(),
  tellSubscribers: boolean(),
  broadcast: string().oneOf(BROADCAST_WAYS),
  adverts: string().oneOf(ADVERT_WAYS),
  credits: array(creditShape.noUnknown().required()).max(50, 'A video has at most 50 credits.'),
  products: array(trimmed().max(40).required()).max(100, 'A video has at most 100 products.'),
};

const wayShape = object({ way: string().oneOf(['replace', 'add']).required(), items: mixed().defined() }).noUnknown();

async function listValue(field: 'tags' | 'links' | 'playlists', given: unknown) {
  const { way, items } = await wayShape
    .typeError(`The ${field} of a layer are given as {"way": "add" or "replace", "items": […]}.`)
    .validate(given, { strict: true });
  const list = await VALUE_SHAPES[field].validate(items, { path: field, stripUnknown: false });
  return { way, items: field === 'tags' ? uniqueTags(list as string[]) : (list as LinkItem[]) };
}

const fieldsShape = object().typeError('Fields are given as a JSON object.').required();

/** Fields by their names, whatever they are. @throws ValidationError where it is no object */
export async function givenFields(input: unknown): Promise<Record<string, unknown>> {
  return fieldsShape.validate(input, { strict: true });
}

/**
 * Values that a layer is to set, checked; null becomes undefined, which leaves the field to the layers beneath.
 * @throws ValidationError that names the field
 */
export async function checkedValues(given: Record<string, unknown>): Promise<Partial<LayerValues>> {
  const entries = await Promise.all(
    Object.entries(given).map(async ([field, value]): Promise<[string, unknown]> => {
      if (value === null || value === undefined) return [field, undefined];
      const name = field as DefaultField;
      const checked = isListField(name)
        ? await listValue(name, value)
        : await VALUE_SHAPES[name].validate(value, { path: name, stripUnknown: false });
      return [field, checked];
    }),
  );
  return Object.fromEntries(entries) as Partial<LayerValues>;
}

import { array, boolean, type InferType, number, object, string } from 'yup';
import type { ChapterChoice, TimeLine } from '@/core/chapters';
import { ADVERT_WAYS, COMMENT_WAYS, type Declarations, LANGUAGE_TAG, LICENCES } from '@/core/declarations';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import type { OwnWords } from '@/core/drop';
import { uniqueTags } from '@/core/words';
import { captionsOf, chooseCaptions } from '@/store/captions';
import { addChange, firstUndone, lastMade, markChange } from '@/store/changes';
import { type Database, database } from '@/store/database';
import { type Drop, deleteDraft, dropsOf, makeDrop, setDropOn } from '@/store/drops';
import { announce } from '@/store/feed';
import { applyMarkerChange, type Marker, type MarkerChange, markersOf } from '@/store/markers';
import { setVideo, type Video, videoById } from '@/store/videos';
import { DeskError, found } from './desk-error';
import { idShape } from './id-shape';
import { goesOn } from './one-thought';

const choiceShape = object({
  colours: array(string().max(40).defined()).max(40).required(),
  places: array(
    string()
      .oneOf(['timeline', 'track', 'clip'] as const)
      .required(),
  )
    .max(3)
    .required(),
  name: string().max(200, 'A pattern for names has at most 200 characters.').defined(),
}).noUnknown();

const fractionShape = () =>
  object({ num: number().integer().required(), den: number().integer().min(1).required() }).noUnknown();

const timeLineShape = object({
  startFrame: number().integer().min(0).required(),
  dropFrame: boolean().required(),
  from: fractionShape().required(),
  to: fractionShape().default(undefined),
  cutId: idShape(),
})
  .noUnknown()
  .test('order', 'The out point has to lie after the in point.', (line) => {
    // Yup runs this where nothing was given, too.
    if (line?.to === undefined) return true;
    return line.to.num * line.from.den > line.from.num * line.to.den;
  });

const creditShape = object({ role: string().trim().max(60).defined(), name: string().trim().max(80).defined() });

/** A day of the calendar, or nothing. */
const dayShape = () =>
  string().test('day', 'A recording date looks like 2026-11-25.', (day) => {
    if (!day) return true;
    const midnight = new Date(`${day}T00:00:00Z`);
    return (
      /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(midnight.getTime()) && midnight.toISOString().startsWith(day)
    );
  });

const declarationsShape = object({
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
  paidPlacement: boolean(),
  comments: string().oneOf(COMMENT_WAYS),
  ratings: boolean(),
  embedding: boolean(),
  tellSubscribers: boolean(),
  adverts: string().oneOf(ADVERT_WAYS),
  credits: array(creditShape.noUnknown().required()).max(50, 'A video has at most 50 credits.'),
  products: array(string().trim().max(40).required()).max(100, 'A video has at most 100 products.'),
}).noUnknown();

/** Bounds well above any site's, so that a text over a site's limit is kept and said, not lost. */
const editShape = object({
  title: string().max(1000, 'A title has at most 1,000 characters.'),
  description: string().max(100_000, 'A description has at most 100,000 characters.'),
  tags: array(string().max(500).defined()).max(500, 'A video has at most 500 tags.'),
  privacy: string().oneOf(PRIVACIES),
  declarations: declarationsShape.default(undefined),
  chapterChoice: choiceShape.default(undefined),
  timeLine: timeLineShape.default(undefined),
  captions: array(idShape().required()).max(50),
  pictureId: idShape().nullable(),
}).noUnknown();

type Edit = InferType<typeof editShape>;

const TYPED_FIELDS = ['title', 'description', 'declarations', 'onChannel'];

/** A field of a video that can be changed and undone, with the shape of its value. */
interface ChangeValues {
  title: string;
  description: string;
  tags: string[];
  privacy: Privacy;
  declarations: Declarations;
  chapterChoice: ChapterChoice;
  timeLine: TimeLine;
  captions: string[];
  pictureId: string | null;
  markers: MarkerChange;
  /** What was set for the channel goes with its tick, and comes back with it. */
  channel: { id: string; ticked: boolean; set?: OnChannel & Pick<Drop, 'playlists'> };
  /** What is set for one channel alone. */
  onChannel: { id: string } & OnChannel;
  /** Several fields that change together, and are undone together. */
  several: FieldValue[];
}

interface FieldValue {
  field: ChangedField;
  value: unknown;
}

type ChangedField = keyof ChangeValues;

/** Sets fields of a video; each change is written down and can be undone. @throws ValidationError, DeskError */
export async function editVideo(id: string, input: unknown): Promise<void> {
  const given = await editShape.validate(input, { stripUnknown: false });
  await database().transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    for (const field of Object.keys(given) as (keyof typeof given)[]) {
      const value = await newValue(field, given, video);
      if (value === undefined) continue;
      const before = field === 'captions' ? (await captionsOf(trx, id)).map((track) => track.id) : video[field];
      await change(trx, id, field, before ?? null, value);
    }
    await announce(trx, 'video', id);
  });
}

/** A field's new value: tags each once; of the declarations, those that were given over those that are set. */
function newValue(field: keyof Edit, given: Edit, video: Video): unknown {
  if (field === 'tags') return given.tags && uniqueTags(given.tags);
  if (field !== 'declarations' || !given.declarations) return given[field];
  const set = Object.entries(given.declarations).filter(([, value]) => value !== undefined);
  return { ...video.declarations, ...Object.fromEntries(set) };
}

/** What can be set for one channel alone; undefined takes it as the record has it. */
export interface OnChannel {
  privacy: Privacy | undefined;
  own: OwnWords;
}

const onChannelShape = object({
  channelId: idShape().required(),
  privacy: string().oneOf(PRIVACIES).nullable(),
  own: object({ title: string().max(1000), text: string().max(100_000) })
    .noUnknown()
    .default(undefined),
}).noUnknown();

/** Sets words or privacy for one channel alone; what is null, or empty, is taken from the record again. */
export async function editOnChannel(id: string, input: unknown): Promise<void> {
  const { channelId, privacy, own } = await onChannelShape.validate(input, { stripUnknown: false });
  await database().transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const drop = found(
      (await dropsOf(trx, [id])).find((each) => each.channelId === channelId),
      'channel ticked for this video',
    );
    const was: OnChannel = { privacy: drop.privacy, own: drop.own };
    const is: OnChannel = {
      privacy: privacy === undefined ? drop.privacy : (privacy ?? undefined),
      // Each field stands alone: what is written in one leaves the other as it is.
      own: Object.fromEntries(Object.entries({ ...drop.own, ...own }).filter(([, text]) => text?.trim())),
    };
    await change(trx, id, 'onChannel', { id: channelId, ...was }, { id: channelId, ...is });
    await announce(trx, 'video', id);
  });
}

/** Fields of the time line that change together with its markers. */
export type WithMarkers = Partial<Pick<ChangeValues, 'chapterChoice' | 'timeLine'>>;

const isSame = (a: Marker, b: Marker | undefined) =>
  b !== undefined &&
  (Object.keys(b) as (keyof Marker)[]).every((key) => JSON.stringify(a[key]) === JSON.stringify(b[key]));

/** Puts markers and takes others away, with what changes beside them, all as one change that can be undone. */
export async function changeMarkers(id: string, asked: MarkerChange, beside: WithMarkers = {}): Promise<void> {
  await database().transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    const all = new Map((await markersOf(trx, id)).map((marker) => [marker.id, marker]));
    const put = asked.put.filter((marker) => !isSame(marker, all.get(marker.id)));
    const made: MarkerChange = { put, remove: asked.remove.filter((each) => all.has(each)) };
    const touched = [...made.remove, ...put.map((marker) => marker.id)];
    const there = [...new Set(touched)].flatMap((each) => all.get(each) ?? []);
    const known = new Set(there.map((marker) => marker.id));
    const back: MarkerChange = {
      put: there,
      remove: made.put.map((marker) => marker.id).filter((each) => !known.has(each)),
    };
    const [before, after]: [FieldValue[], FieldValue[]] = [
      [{ field: 'markers', value: back }],
      [{ field: 'markers', value: made }],
    ];
    for (const [field, value] of Object.entries(beside) as [keyof WithMarkers, unknown][]) {
      if (value === undefined || JSON.stringify(value) === JSON.stringify(video[field])) continue;
      before.push({ field, value: video[field] });
      after.push({ field, value });
    }
    if (made.put.length + made.remove.length === 0 && after.length === 1) return;
    if (after.length > 1) await change(trx, id, 'several', before, after);
    else await change(trx, id, 'markers', back, made);
    await announce(trx, 'video', id);
  });
}

/** Ticks a channel for a video, or takes the tick back. @throws DeskError where it was sent there already */
export async function tickChannel(id: string, channelId: string, ticked: boolean): Promise<void> {
  await database().transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const there = (await dropsOf(trx, [id])).find((drop) => drop.channelId === channelId);
    if (ticked === (there !== undefined)) return;
    if (there && there.state !== 'draft') {
      throw new DeskError('not now', 'This video was sent there. Remove it from the site first.');
    }
    const set = there && { privacy: there.privacy, own: there.own, playlists: there.playlists };
    await change(trx, id, 'channel', { id: channelId, ticked: !ticked, set }, { id: channelId, ticked });
    await announce(trx, 'video', id);
  });
}

/** Takes the last change back. What was changed is returned, or undefined where there was nothing. */
export async function undo(id: string): Promise<string | undefined> {
  return step(id, lastMade, (entry) => entry.before, 'undone');
}

/** Makes the change again that was undone last. */
export async function redo(id: string): Promise<string | undefined> {
  return step(id, firstUndone, (entry) => entry.after, 'made');
}

async function step(
  id: string,
  find: typeof lastMade,
  value: (entry: { before: string; after: string }) => string,
  state: 'made' | 'undone',
): Promise<string | undefined> {
  return database().transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const entry = await find(trx, id);
    if (!entry) return undefined;
    await apply(trx, id, entry.field as ChangedField, JSON.parse(value(entry)));
    await markChange(trx, entry.id, state);
    await announce(trx, 'video', id);
    return entry.field;
  });
}

async function change(trx: Database, id: string, field: ChangedField, before: unknown, after: unknown): Promise<void> {
  const [was, is] = [JSON.stringify(before), JSON.stringify(after)];
  if (was === is) return;
  await apply(trx, id, field, after);
  const made = { field, before: was, after: is };
  await addChange(trx, id, made, (last) => TYPED_FIELDS.includes(field) && goesOn(last, made));
}

async function apply(trx: Database, id: string, field: ChangedField, value: unknown): Promise<void> {
  if (field === 'markers') return applyMarkerChange(trx, id, value as MarkerChange);
  if (field === 'channel') {
    const { id: channelId, ticked, set } = value as ChangeValues['channel'];
    if (!ticked) await deleteDraft(trx, id, channelId);
    else {
      await makeDrop(trx, id, channelId);
      if (set) await setDropOn(trx, id, channelId, set);
    }
    return;
  }
  if (field === 'onChannel') {
    const { id: channelId, privacy, own } = value as ChangeValues['onChannel'];
    return setDropOn(trx, id, channelId, { privacy, own });
  }
  if (field === 'captions') return chooseCaptions(trx, id, value as string[]);
  if (field === 'several') {
    for (const each of value as FieldValue[]) await apply(trx, id, each.field, each.value);
    return;
  }
  const titleFrom = field === 'title' ? { titleFrom: 'person' as const } : {};
  await setVideo(trx, id, { [field]: value ?? undefined, ...titleFrom });
}

import { array, boolean, number, object, string } from 'yup';
import { type DefaultField, isDefaultField, partsByPattern } from '@/core/defaults';
import { CLOSEST_PERCENT, COMINGS, MOST_PLACEMENTS, type Shape } from '@/core/framing';
import { compare, LONGEST_TIME, ZERO } from '@/core/time';
import { type Database, transaction } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import type { OwnOnChannel } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { captionsOf } from '@/store/record/captions';
import { cutsOf } from '@/store/record/cuts';
import { type Marker, type MarkerChange, markersOf } from '@/store/record/markers';
import { noteSeriesUsed, seriesById } from '@/store/record/series';
import { type Video, videoById } from '@/store/record/videos';
import { change, type FieldValue } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { idShape } from '../id-shape';
import { ticksOfSeries } from '../layers/recognise';
import { checkedValues, fractionShape, givenFields, momentShape } from '../layers/values-shape';
import { trimmed } from '../text-shape';
import { checkUnchanged, madeOnShape, partedOn } from './made-on';

/** Frames of 1,000 hours at the highest rate that there is. */
const MOST_FRAMES = LONGEST_TIME * 240;

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

const timeLineShape = object({
  startFrame: number().integer().min(0).max(MOST_FRAMES).required(),
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

const wavedShape = object({
  rule: string().max(60).required(),
  cutId: idShape().required(),
  reason: trimmed().max(500, 'A reason has at most 500 characters.').defined(),
}).noUnknown();

/** What is put right in the files of one cut; times lie within it. */
const remediesShape = object({
  cutId: idShape().required(),
  from: fractionShape().default(undefined),
  to: fractionShape().default(undefined),
  loudness: number().min(-36, 'Loudness goes from −36 to −8 LUFS.').max(-8, 'Loudness goes from −36 to −8 LUFS.'),
  indexFirst: boolean().oneOf([true]),
  sphere: boolean().oneOf([true]),
  convert: boolean().oneOf([true]),
})
  .noUnknown()
  .test('order', 'The end has to lie after the start.', (remedies) => {
    if (!remedies?.to) return true;
    const from = remedies.from ?? { num: 0, den: 1 };
    return from.num >= 0 && remedies.to.num * from.den > from.num * remedies.to.den;
  });

const part = (what: string) =>
  number().integer().min(0, `${what} lies outside the picture.`).max(10_000, `${what} lies outside the picture.`);
const placementShape = object({
  at: momentShape().required(),
  x: part('The frame').required(),
  y: part('The frame').required(),
  comes: string().oneOf(COMINGS).required(),
}).noUnknown();
const framingShape = object({
  percent: number()
    .integer()
    .min(CLOSEST_PERCENT, `A frame has at least ${CLOSEST_PERCENT} % of its full size.`)
    .max(100, 'A frame cannot be larger than the picture.')
    .required(),
  placements: array(placementShape.required())
    .max(MOST_PLACEMENTS, `A frame has at most ${MOST_PLACEMENTS} places.`)
    .required()
    .test('order', 'The places of a frame come in order of time, each at a moment of its own.', (all) =>
      (all ?? []).every(({ at }, index) => index === 0 || compare(all[index - 1]?.at ?? ZERO, at) < 0),
    ),
}).noUnknown();
const framingsShape = object({
  upright: framingShape.default(undefined),
  square: framingShape.default(undefined),
} satisfies Record<Shape, unknown>).noUnknown();

/** Bounds well above any site's, so that a text over a site's limit is kept and said, not lost. */
const editShape = object({
  title: string().max(1000, 'A title has at most 1,000 characters.'),
  summary: string().max(100_000, 'A summary has at most 100,000 characters.'),
  episode: trimmed().max(40, 'The number of an episode has at most 40 characters.'),
  seriesId: idShape().nullable(),
  chapterChoice: choiceShape.nullable().default(undefined),
  timeLine: timeLineShape.default(undefined),
  captions: array(idShape().required()).max(50),
  meantBlanks: array(string().max(200).required()).max(200),
  wavedThrough: array(wavedShape.required()).max(200),
  pictureId: idShape().nullable(),
  remedies: remediesShape.nullable().default(undefined),
  framings: framingsShape.default(undefined),
}).noUnknown();

/** What is given for the layer of a video or a drop, apart from everything else. */
async function partedValues(
  input: unknown,
): Promise<{ values: Record<string, unknown>; rest: Record<string, unknown> }> {
  const all = Object.entries(await givenFields(input));
  const inLayer = ([field]: [string, unknown]) => isDefaultField(field);
  const rest = all.filter((entry) => !inLayer(entry));
  return { values: Object.fromEntries(all.filter(inLayer)), rest: Object.fromEntries(rest) };
}

/**
 * Sets fields of a video: its title, summary and the like, and any field of the layers, which null leaves to the layers
 * beneath. Each change is written down and can be undone.
 * @param input the fields; and `on`, by field, the values that they had where the change was made
 * @throws ValidationError, DeskError
 * @throws ChangedMeanwhile where such a field has another value now
 */
export async function editVideo(id: string, input: unknown): Promise<void> {
  const { on, fields: all } = await partedOn(input);
  const { values, rest } = await partedValues(all);
  const given = await editShape.validate(rest, { stripUnknown: false });
  const set = await checkedValues(values);
  await transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    const { seriesId, title, ...fields } = given;
    const captions = fields.captions && (await captionsOf(trx, id)).map((track) => track.id);
    const now = { ...video, captions };
    // All are looked at before any is changed, so that a page may send the same once more.
    for (const field of Object.keys(set) as DefaultField[]) checkUnchanged(on, field, video.own[field], set[field]);
    for (const field of Object.keys(given) as (keyof typeof given)[]) {
      if (given[field] !== undefined) checkUnchanged(on, field, now[field], given[field]);
    }
    for (const field of Object.keys(set) as DefaultField[]) await change(trx, id, field, video.own[field], set[field]);
    if (title !== undefined && title !== video.title) {
      const before = { title: video.title, titleFrom: video.titleFrom };
      await change(trx, id, 'titled', before, { title, titleFrom: 'person' });
    }
    for (const field of Object.keys(fields) as (keyof typeof fields)[]) {
      if (fields[field] !== undefined) await change(trx, id, field, now[field] ?? null, fields[field]);
    }
    if (seriesId !== undefined) await putInSeries(trx, video, seriesId ?? undefined);
    await announce(trx, 'video', id);
  });
}

/** Puts a video in a series by hand; what the series knows of its file's name is taken over. */
async function putInSeries(trx: Database, video: Video, seriesId: string | undefined): Promise<void> {
  const series = seriesId === undefined ? undefined : found(await seriesById(trx, seriesId), 'series');
  const fileName = (await cutsOf(trx, [video.id])).get(video.id)?.[0]?.fileName ?? '';
  const parts = series && partsByPattern(fileName, series.pattern);
  const before: FieldValue[] = [{ field: 'series', value: { seriesId: video.seriesId, seriesFrom: video.seriesFrom } }];
  const after: FieldValue[] = [{ field: 'series', value: { seriesId, seriesFrom: 'person' } }];
  if (parts?.episode && video.episode === '') {
    before.push({ field: 'episode', value: '' });
    after.push({ field: 'episode', value: parts.episode });
  }
  const { tick, untick } = await ticksOfSeries(trx, video.id, { from: video.seriesId, to: series?.id });
  for (const [channelIds, ticked] of [[tick, true] as const, [untick, false] as const]) {
    for (const id of channelIds) {
      before.push({ field: 'channel', value: { id, ticked: !ticked } });
      after.push({ field: 'channel', value: { id, ticked } });
    }
  }
  const changed = await change(trx, video.id, 'several', before, after);
  if (changed && series) await noteSeriesUsed(trx, series.id);
}

const onChannelShape = object({
  channelId: idShape().required(),
  set: object().default(undefined),
  on: madeOnShape,
  playlists: array(string().max(120).defined()).max(50).nullable(),
}).noUnknown();

const ownWordsShape = object({
  title: string().max(1000).nullable(),
  text: string().max(100_000).nullable(),
  /** The record's text as it was when the own one was written or looked at. */
  textOver: string().max(100_000).nullable(),
}).noUnknown();

/**
 * Sets words, fields of the layers or playlists for one channel alone; what is null, or an empty text, is taken from the
 * record again.
 * @param input the channel, what is `set` for it, its playlists; and `on`, by field, what was set where the change was made
 * @throws ChangedMeanwhile where such a field has another value now
 */
export async function editOnChannel(id: string, input: unknown): Promise<void> {
  const { channelId, playlists, on, set = {} } = await onChannelShape.validate(input, { stripUnknown: false });
  const { values, rest } = await partedValues(set);
  const words = await ownWordsShape.validate(rest, { stripUnknown: false });
  const given = { ...(await checkedValues(values)), ...words };
  await transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const drop = found(
      (await dropsOf(trx, [id])).find((each) => each.channelId === channelId),
      'channel ticked for this video',
    );
    const now = drop.own as Record<string, unknown>;
    for (const [field, value] of Object.entries(given)) checkUnchanged(on, field, now[field], value || null);
    // Each field stands alone: what is set in one leaves the others as they are.
    const all = Object.entries({ ...drop.own, ...given });
    const own: OwnOnChannel = Object.fromEntries(
      all.filter(([field, value]) => {
        if (value === null || value === undefined) return false;
        return !['title', 'text'].includes(field) || String(value).trim() !== '';
      }),
    );
    if (own.text === undefined) delete own.textOver;
    await change(trx, id, 'onChannel', { id: channelId, own: drop.own }, { id: channelId, own });
    if (playlists !== undefined) {
      const before = { id: channelId, chosenPlaylists: drop.chosenPlaylists ?? null };
      await change(trx, id, 'onPlaylists', before, { id: channelId, chosenPlaylists: playlists });
    }
    await announce(trx, 'video', id);
  });
}

/** Fields of the time line that change together with its markers. */
export type WithMarkers = Partial<Pick<Video, 'chapterChoice' | 'timeLine'>>;

const isSame = (a: Marker, b: Marker | undefined) =>
  b !== undefined &&
  (Object.keys(b) as (keyof Marker)[]).every((key) => JSON.stringify(a[key]) === JSON.stringify(b[key]));

/**
 * Puts markers and takes others away, with what changes beside them, all as one change that can be undone.
 * @param asked markers to put and to remove
 * @param beside what else changes in the same step
 */
export async function changeMarkers(id: string, asked: MarkerChange, beside: WithMarkers = {}): Promise<void> {
  await transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    const all = new Map((await markersOf(trx, id)).map((marker) => [marker.id, marker]));
    const put = asked.put.filter((marker) => !isSame(marker, all.get(marker.id)));
    const made: MarkerChange = { put, remove: asked.remove.filter((each) => all.has(each)) };
    const touched = [...made.remove, ...put.map((marker) => marker.id)];
    const touchedMarkers = [...new Set(touched)].flatMap((each) => all.get(each) ?? []);
    const ids = new Set(touchedMarkers.map((marker) => marker.id));
    const back: MarkerChange = {
      put: touchedMarkers,
      remove: made.put.map((marker) => marker.id).filter((each) => !ids.has(each)),
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

/**
 * Ticks a channel for a video, or takes the tick back.
 * @param ticked whether the video is to go there
 * @throws DeskError where it was sent there already
 */
export async function tickChannel(id: string, channelId: string, ticked: boolean): Promise<void> {
  await transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const drop = (await dropsOf(trx, [id])).find((each) => each.channelId === channelId);
    if (ticked === (drop !== undefined)) return;
    if (drop && drop.state !== 'draft') {
      throw new DeskError('not now', 'This video was sent there. Remove it from the site first.');
    }
    const set = drop && { own: drop.own, chosenPlaylists: drop.chosenPlaylists };
    await change(trx, id, 'channel', { id: channelId, ticked: !ticked, set }, { id: channelId, ticked });
    await announce(trx, 'video', id);
  });
}

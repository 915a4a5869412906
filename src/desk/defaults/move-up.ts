import { object, string } from 'yup';
import {
  type DefaultField,
  FIELD_NAMES,
  isDefaultField,
  isListField,
  type LayerValues,
  type ListValue,
} from '@/core/defaults';
import { transaction } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { lockThing } from '@/store/queue/locks';
import { defaultsOf, type LayerKey } from '@/store/record/defaults';
import { type Video, videoById } from '@/store/record/videos';
import { change, type FieldValue } from '../changes/changes';
import { type Reached, reachOf } from '../changes/reach';
import { DeskError, found } from '../desk-error';
import { idShape } from '../id-shape';
import { layerKey } from './defaults';

const moveShape = object({
  field: string()
    .test(
      'field',
      ({ value }) => `There is no field “${value}”`,
      (field) => field !== undefined && isDefaultField(field),
    )
    .required(),
  /** Where it is set now: on the video, or for this channel of it alone. */
  channelId: idShape(),
  to: string().oneOf(['video', 'series', 'channel']).required(),
  /** The channel that it is to hold for from now on. */
  toChannel: idShape(),
}).noUnknown();

/** A value put over what a layer has: a list that adds goes after the layer's own. */
function merged(setAbove: unknown, value: unknown, field: DefaultField): unknown {
  if (!isListField(field) || setAbove === undefined) return value;
  const [first, more] = [setAbove as ListValue<unknown>, value as ListValue<unknown>];
  return more.way === 'replace' ? more : { way: first.way, items: [...first.items, ...more.items] };
}

/**
 * Moves what is set on a video, or on one channel of it, up to a layer above: for the whole series, or the whole channel,
 * from now on. It is one change of the video, and undone as one. The videos that it reaches are returned.
 */
export async function moveUp(id: string, input: unknown): Promise<Reached[]> {
  const { to, toChannel, channelId, ...given } = await moveShape.validate(input, { stripUnknown: false });
  const field = given.field as DefaultField;
  return transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    const drop = channelId ? (await dropsOf(trx, [id])).find((each) => each.channelId === channelId) : undefined;
    const own: LayerValues = channelId ? found(drop, 'channel ticked for this video').own : video.own;
    const value = own[field];
    if (value === undefined) throw new DeskError('not now', `The ${FIELD_NAMES[field]} is not set here.`);
    const taken = takenFrom(video, drop, field);
    const target = to === 'video' ? undefined : { layer: to, owner: ownerOf(to, video, toChannel ?? channelId) };
    const key = target && (await layerKey(trx, target));
    if (key) await lockThing(trx, key.owner);
    const setAbove = key ? (await defaultsOf(trx, key, true))[field] : video.own[field];
    const put = (next: unknown): FieldValue => (key ? inLayer(key, field, next) : { field, value: next ?? null });
    return reachOf(trx, async () => {
      const [before, after] = [
        [put(setAbove), taken.before],
        [put(merged(setAbove, value, field)), taken.after],
      ];
      await change(trx, id, 'several', before, after);
      await announce(trx, 'video', id);
    });
  });
}

const inLayer = (key: LayerKey, field: DefaultField, value: unknown): FieldValue => ({
  field: 'default',
  value: { ...key, field, value: value ?? null },
});

function ownerOf(to: string, video: Video, channelId: string | undefined): string {
  if (to === 'channel') return found(channelId ?? undefined, 'channel');
  if (video.seriesId === undefined) throw new DeskError('not now', 'This video is in no series; put it in one first.');
  return video.seriesId;
}

/** Where the value is set now, with it and without. */
function takenFrom(
  video: Video,
  drop: Drop | undefined,
  field: DefaultField,
): { before: FieldValue; after: FieldValue } {
  if (!drop) return { before: { field, value: video.own[field] }, after: { field, value: null } };
  const { [field]: _, ...rest } = drop.own;
  const at = (own: object): FieldValue => ({ field: 'onChannel', value: { id: drop.channelId, own } });
  return { before: at(drop.own), after: at(rest) };
}

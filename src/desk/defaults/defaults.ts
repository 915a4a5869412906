import { object, string } from 'yup';
import { type DefaultField, isDefaultField } from '@/core/defaults';
import { siteIds } from '@/sites/registry';
import { type Database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { lockThing } from '@/store/queue/locks';
import { defaultsOf, KEPT_LAYERS, type LayerKey } from '@/store/record/defaults';
import { seriesById } from '@/store/record/series';
import { channelById } from '@/store/site/channels';
import { change } from '../changes/changes';
import { type Reached, reachOf } from '../changes/reach';
import { DeskError, found } from '../desk-error';
import { checkedValues, givenFields } from '../layers/values-shape';
import { checkUnchanged, partedOn } from '../video/made-on';

const keyShape = object({
  layer: string().oneOf(KEPT_LAYERS).required(),
  owner: string().max(40).required(),
}).noUnknown();

/** The layer that is meant, and that there is. @throws DeskError, ValidationError */
export async function layerKey(db: Database, given: unknown): Promise<LayerKey> {
  const key = await keyShape.validate(given, { stripUnknown: false });
  const { layer, owner } = key;
  if (layer === 'site' && !siteIds().includes(owner)) throw new DeskError('not found', `There is no site ${owner}.`);
  if (layer === 'channel') found(await channelById(db, owner), 'channel');
  if (layer === 'series') found(await seriesById(db, owner), 'series');
  return key;
}

/** Fields of a layer as they are given, null where they are left to the layers beneath. @throws ValidationError */
export async function checkedFields(input: unknown) {
  const given = await givenFields(input);
  const strange = Object.keys(given).find((field) => !isDefaultField(field));
  if (strange) throw new DeskError('not taken', `There is no default called “${strange}”.`);
  return checkedValues(given);
}

/**
 * Sets fields of a site's, a channel's or a series' defaults; null leaves a field to the layers beneath. Each can be
 * undone. The videos that it reaches are returned; what was sent is never changed.
 * @param input the fields; and `on`, by field, what was set where the change was made
 * @throws ChangedMeanwhile where such a field has another value now
 */
export async function editDefaults(where: unknown, input: unknown): Promise<Reached[]> {
  const { on, fields } = await partedOn(input);
  const set = await checkedFields(fields);
  return transaction(async (trx) => {
    const key = await layerKey(trx, where);
    await lockThing(trx, key.owner);
    return reachOf(trx, async () => {
      const values = await defaultsOf(trx, key, true);
      for (const field of Object.keys(set) as DefaultField[]) checkUnchanged(on, field, values[field], set[field]);
      for (const field of Object.keys(set) as DefaultField[]) {
        const before = { ...key, field, value: values[field] ?? null };
        await change(trx, key.owner, 'default', before, { ...key, field, value: set[field] ?? null });
      }
      await announce(trx, 'layers', key.owner);
    });
  });
}

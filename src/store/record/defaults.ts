import type { LayerValues } from '@/core/defaults';
import { type Database, fromJson } from '@/store/database';

/** Layers that are kept by themselves; what is set on a video or a drop is kept there. */
export const KEPT_LAYERS = ['site', 'channel', 'series'] as const;
export type KeptLayer = (typeof KEPT_LAYERS)[number];

/** A layer's owner: a site by its name in code, a channel or a series by its id. */
export interface LayerKey {
  layer: KeptLayer;
  owner: string;
}

/** Every layer that sets something, by owner; owners of different layers never share an id. */
export async function allDefaults(db: Database): Promise<Map<string, LayerValues>> {
  const rows: { owner: string; setValues: string }[] = await db('defaults').select('owner', 'setValues');
  return new Map(rows.map(({ owner, setValues }) => [owner, fromJson<LayerValues>(setValues) ?? {}]));
}

/** What a layer sets; with `lock`, changes of others wait until the transaction ends. */
export async function defaultsOf(db: Database, { layer, owner }: LayerKey, lock = false): Promise<LayerValues> {
  const query = db('defaults').where({ layer, owner }).first('setValues');
  const row: { setValues: string } | undefined = await (lock ? query.forUpdate() : query);
  return row ? (fromJson<LayerValues>(row.setValues) ?? {}) : {};
}

export async function setDefaults(db: Database, key: LayerKey, values: LayerValues): Promise<void> {
  await db('defaults')
    .insert({ ...key, setValues: JSON.stringify(values), updatedAt: new Date() })
    .onConflict(['layer', 'owner'])
    .merge(['setValues', 'updatedAt']);
}

export async function deleteDefaults(db: Database, key: LayerKey): Promise<void> {
  await db('defaults').where(key).delete();
}

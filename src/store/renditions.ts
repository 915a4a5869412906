import type { Database } from './database';
import { newId } from './ids';

/** A file made from a cut for a site; `settings` names how, 'as it is' being the cut itself. Drops share renditions. */
export interface Rendition {
  id: string;
  cutId: string;
  settings: string;
  fileKey: string;
  size: number;
  digest: string;
}

const columns = ['id', 'cutId', 'settings', 'fileKey', 'size', 'digest'];

export async function renditionById(db: Database, id: string): Promise<Rendition | undefined> {
  return db('renditions').where({ id }).first(columns);
}

/** The cuts that renditions were made from, by the renditions' ids. */
export async function cutsOfRenditions(db: Database, ids: readonly string[]): Promise<Map<string, string>> {
  const rows: { id: string; cutId: string }[] = await db('renditions')
    .select('id', 'cutId')
    .whereIn('id', [...new Set(ids)]);
  return new Map(rows.map(({ id, cutId }) => [id, cutId]));
}

/** The rendition of a cut with these settings, where there is one. */
export async function renditionWith(db: Database, cutId: string, settings: string): Promise<Rendition | undefined> {
  return db('renditions').where({ cutId, settings }).first(columns);
}

/** The rendition of a cut with these settings, made known where it is new. */
export async function keepRendition(db: Database, rendition: Omit<Rendition, 'id'>): Promise<Rendition> {
  await db('renditions')
    .insert({ id: newId(), ...rendition, createdAt: new Date() })
    .onConflict(['cutId', 'settings'])
    .ignore();
  return (await renditionWith(db, rendition.cutId, rendition.settings)) as Rendition;
}

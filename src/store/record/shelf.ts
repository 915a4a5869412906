import type { NamedLink, Shelf } from '@/core/words';
import type { Database } from '@/store/database';

/** A link of the shelf with the name that texts use it by. */
export interface ShelfLink extends NamedLink {
  name: string;
}

/** Every link of the shelf, by name. */
export async function allShelfLinks(db: Database): Promise<ShelfLink[]> {
  return db('shelf').select('name', 'label', 'url').orderBy('name');
}

/** The shelf as texts use it. */
export async function shelf(db: Database): Promise<Shelf> {
  return Object.fromEntries((await allShelfLinks(db)).map(({ name, label, url }) => [name, { label, url }]));
}

/** Puts a link on the shelf, or in the place of the one that has its name. */
export async function putShelfLink(db: Database, link: ShelfLink): Promise<void> {
  await db('shelf')
    .insert({ ...link, updatedAt: new Date() })
    .onConflict('name')
    .merge(['label', 'url', 'updatedAt']);
}

export async function deleteShelfLink(db: Database, name: string): Promise<void> {
  await db('shelf').where({ name }).delete();
}

import type { Knex } from 'knex';
import { newId } from '../ids';

/** Room for findings that a person waved through; what was measured before there was more to find is measured again. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('videos', (table) => {
    table.json('wavedThrough');
  });
  const before = () =>
    db('measurements').where({ state: 'ready' }).whereRaw(`JSON_VALUE(??, '$.picture.varies') IS NULL`, ['found']);
  const cuts = (await before().select('cutId')) as { cutId: string }[];
  const now = db.raw('UTC_TIMESTAMP(3)');
  // Work that is done leaves its row, which would be taken for this.
  for (let first = 0; first < cuts.length; first += 500) {
    const subjects = cuts.slice(first, first + 500).map(({ cutId }) => cutId);
    await db('jobs').where({ kind: 'measure' }).whereIn('subject', subjects).delete();
    // Behind every file that comes now.
    const asked = { kind: 'measure', state: 'waiting', priority: -10, askedAt: now, nextTryAt: now };
    await db('jobs').insert(subjects.map((subject) => ({ id: newId(), subject, ...asked })));
  }
  await before().update({ state: 'waiting', found: null });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('videos', (table) => table.dropColumn('wavedThrough'));
}

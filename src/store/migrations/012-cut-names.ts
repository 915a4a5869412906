import type { Knex } from 'knex';

/** Where templates are kept, as they are or within other values. */
const KEPT: [table: string, columns: string[]][] = [
  ['defaults', ['setValues']],
  ['videos', ['own']],
  ['drops', ['own', 'sentWith']],
  ['changes', ['before', 'after']],
];

const TURNS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];
const NAMES = Array.from({ length: 99 }, (_, n) => [`go.${n + 1}`, `cut-${TURNS[n] ?? n + 1}`] as const);

async function like(db: Knex, table: string, column: string, pattern: string): Promise<number> {
  const [{ found = 0 } = {}] = await db(table).where(column, 'like', pattern).count({ found: '*' });
  return Number(found);
}

/** Renames the sections that are cut in turn: their names say now what they do. */
async function rename(db: Knex, part: string, names: readonly (readonly [from: string, to: string])[]): Promise<void> {
  for (const [table, columns] of KEPT) {
    for (const column of columns) {
      // Most tables have none at all; one look spares a hundred.
      if ((await like(db, table, column, `%${part}%`)) === 0) continue;
      for (const [from, to] of names) {
        if ((await like(db, table, column, `%${from}%`)) === 0) continue;
        const pattern = `(\\{\\{[#/^] *)${from.replace('.', '\\.')}( *\\}\\})`;
        const renamed = db.raw('REGEXP_REPLACE(??, ?, ?)', [column, pattern, `\\1${to}\\2`]);
        await db(table)
          .where(column, 'like', `%${from}%`)
          .update({ [column]: renamed });
      }
    }
  }
}

export const up = (db: Knex): Promise<void> => rename(db, 'go.', NAMES);
export const down = (db: Knex): Promise<void> =>
  rename(
    db,
    'cut-',
    NAMES.map(([from, to]) => [to, from]),
  );

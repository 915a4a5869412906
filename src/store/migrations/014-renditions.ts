import type { Knex } from 'knex';
import { newId } from '../ids';
import { id, moment } from './columns';

/** Where values of layers are kept, as they are or within other values. */
const KEPT: [table: string, columns: string[]][] = [
  ['defaults', ['setValues']],
  ['videos', ['own']],
  ['drops', ['own', 'sentWith']],
  ['changes', ['before', 'after']],
];

interface FileBefore {
  tallest: number | null;
  kilobits: number | null;
}

const isBefore = (value: object): value is FileBefore => 'tallest' in value && 'kilobits' in value;

/** File settings of before, which nothing used, become a set of that name; those that asked for nothing keep the file. */
function habitOf({ tallest, kilobits }: FileBefore, sets: Map<string, { id: string; settings: object }>): object {
  if (tallest === null && kilobits === null) return { way: 'keep' };
  const name = [tallest && `${tallest} lines`, kilobits && `${kilobits / 1000} Mbit/s`].filter(Boolean).join(', ');
  const set = sets.get(name) ?? {
    id: newId(),
    settings: {
      container: 'mp4',
      codec: 'h264',
      size: tallest === null ? { way: 'keep' } : { way: 'at most', lines: tallest },
      rate: null,
      control:
        kilobits === null ? { way: 'by size' } : { way: 'variable', kilobits, ceiling: Math.round(kilobits * 1.5) },
      sound: { codec: 'aac', kilobits: 192, sampleRate: 48_000, loudness: null },
    },
  };
  sets.set(name, set);
  return { way: 'set', set: set.id };
}

async function changeHabits(db: Knex): Promise<void> {
  const sets = new Map<string, { id: string; settings: object }>();
  const changed = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(changed);
    if (typeof value !== 'object' || value === null) return value;
    if (isBefore(value)) return habitOf(value, sets);
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, changed(each)]));
  };
  for (const [table, columns] of KEPT) {
    for (const column of columns) {
      const rows: Record<string, unknown>[] = await db(table).where(column, 'like', '%"kilobits"%').select();
      for (const row of rows) {
        const text = JSON.stringify(changed(JSON.parse(String(row[column]))));
        const key = table === 'defaults' ? { layer: row.layer, owner: row.owner } : { id: row.id };
        await db(table)
          .where(key)
          .update({ [column]: text });
      }
    }
  }
  const now = new Date();
  for (const [name, { id: setId, settings }] of sets) {
    await db('fileSets').insert({ id: setId, name, settings: JSON.stringify(settings), updatedAt: now });
  }
}

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('fileSets', (table) => {
    id(table, 'id').primary();
    table.string('name', 60).notNullable().unique();
    table.json('settings').notNullable();
    moment(table, 'updatedAt').notNullable();
  });
  await db.schema.alterTable('renditions', (table) => {
    table.enum('state', ['waiting', 'ready', 'failed', 'gone']).notNullable().defaultTo('ready');
    table.json('recipe');
    table.string('trouble', 1000);
    // What was expected of it, and how it went: what is made next is expected by that.
    table.json('expected');
    table.string('encoder', 40);
    table.double('megapixels');
    table.double('seconds');
    moment(table, 'madeAt');
    table.index(['state', 'madeAt']);
  });
  await db.schema.alterTable('jobs', (table) => {
    table.boolean('held').notNullable().defaultTo(false);
  });
  await db.schema.alterTable('channels', (table) => {
    // How fast its line was, over the last transfers.
    table.double('bytesPerSecond');
  });
  await db.schema.createTable('lineLimits', (table) => {
    // A channel's id, or everything.
    table.string('owner', 40).primary();
    table.integer('kilobits').unsigned().notNullable();
    // Minutes of the day between which it holds; at all hours without them.
    table.integer('fromMinute').unsigned();
    table.integer('toMinute').unsigned();
    table.string('zone', 60).notNullable();
  });
  await db.schema.alterTable('videos', (table) => {
    table.json('remedies');
  });
  await db.schema.alterTable('cuts', (table) => {
    // How long it is: files of one length are compared with each other.
    table.double('seconds');
    table.index(['seconds']);
  });
  const exact = `JSON_VALUE(??, '$.duration.num') / JSON_VALUE(??, '$.duration.den')`;
  await db('cuts')
    .whereNotNull('facts')
    .update({ seconds: db.raw(exact, ['facts', 'facts']) });
  await changeHabits(db);
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('cuts', (table) => {
    table.dropIndex(['seconds']);
    table.dropColumn('seconds');
  });
  await db.schema.alterTable('videos', (table) => table.dropColumn('remedies'));
  await db.schema.alterTable('channels', (table) => table.dropColumn('bytesPerSecond'));
  await db.schema.alterTable('jobs', (table) => table.dropColumn('held'));
  await db.schema.alterTable('renditions', (table) => {
    table.dropIndex(['state', 'madeAt']);
    table.dropColumns('state', 'recipe', 'trouble', 'expected', 'encoder', 'megapixels', 'seconds', 'madeAt');
  });
  await db.schema.dropTable('lineLimits');
  await db.schema.dropTable('fileSets');
}

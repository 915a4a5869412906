import type { Knex } from 'knex';
import { newId } from '../ids';
import { claimColumns, id, moment, refer } from './columns';

/** The columns by which rows were claimed that are jobs now. */
const CLAIM_COLUMNS = ['leaseOwner', 'leaseUntil', 'nextTryAt', 'attempts'];

const now = (db: Knex) => db.raw('UTC_TIMESTAMP(3)');

async function askFor(db: Knex, kind: string, subjects: readonly string[]): Promise<void> {
  const asked = { state: 'waiting', askedAt: now(db), nextTryAt: now(db) };
  const rows = subjects.map((subject) => ({ id: newId(), kind, subject, ...asked }));
  await db.batchInsert('jobs', rows, 500);
}

const plucked = async (query: Knex.QueryBuilder, column: string): Promise<string[]> =>
  ((await query.select(column)) as Record<string, string>[]).map((row) => row[column] ?? '');

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('jobs', (table) => {
    id(table, 'id').primary();
    table.specificType('kind', 'VARCHAR(20) CHARACTER SET ascii').notNullable();
    id(table, 'subject').notNullable();
    table.enum('state', ['waiting', 'done', 'set aside']).notNullable();
    table.specificType('priority', 'SMALLINT').notNullable().defaultTo(0);
    table.json('progress');
    table.string('trouble', 1000);
    table.integer('putOffs').unsigned().notNullable().defaultTo(0);
    moment(table, 'askedAt').notNullable();
    moment(table, 'endedAt');
    claimColumns(table);
    table.unique(['kind', 'subject']);
    table.index(['state', 'nextTryAt']);
    table.index(['subject']);
  });
  await askFor(db, 'read', await plucked(db('cuts').where({ state: 'reading' }), 'id'));
  await askFor(db, 'measure', await plucked(db('measurements').where({ state: 'waiting' }), 'cutId'));
  await askFor(db, 'picture', await plucked(db('pictureHabits').where({ state: 'waiting' }), 'id'));
  for (const name of ['cuts', 'measurements']) {
    await db.schema.alterTable(name, (table) => {
      table.dropIndex(['state', 'nextTryAt']);
      table.dropColumns(...CLAIM_COLUMNS);
      table.index(['state']);
    });
  }
  await db.schema.dropTable('pictureHabits');
  await db.schema.createTable('circuits', (table) => {
    table.string('site', 40).primary();
    table.integer('failures').unsigned().notNullable();
    moment(table, 'since').notNullable();
    // When the site is tried again; undefined while it does not rest.
    moment(table, 'nextTryAt');
    table.string('says', 500).notNullable();
  });
  // Keys of files whose rows are gone, until they are taken off the disk.
  await db.schema.createTable('filesToRemove', (table) => table.string('fileKey', 200).primary());
  await db.schema.alterTable('drops', (table) => {
    moment(table, 'stateSince');
    table.index(['channelId', 'state']);
  });
  await db('drops').update({ stateSince: db.ref('updatedAt') });
  // Whoever renews an account's tokens has it to itself until then.
  await db.schema.alterTable('accounts', (table) => moment(table, 'renewingUntil'));
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('accounts', (table) => table.dropColumn('renewingUntil'));
  // The index also serves the reference to channels, which needs one of its own before it goes.
  const names = ['drops', 'drops_channelid_index', 'channelId'];
  await db.raw('ALTER TABLE ?? ADD INDEX IF NOT EXISTS ?? (??)', names);
  await db.schema.alterTable('drops', (table) => {
    table.dropColumn('stateSince');
    table.dropIndex(['channelId', 'state']);
  });
  await db.schema.dropTable('filesToRemove');
  await db.schema.dropTable('circuits');
  await db.schema.createTable('pictureHabits', (table) => {
    id(table, 'id').primary();
    table.enum('state', ['waiting', 'done']).notNullable();
    claimColumns(table);
    refer(table, 'id', 'videos', 'CASCADE');
    table.index(['state', 'nextTryAt']);
  });
  for (const name of ['cuts', 'measurements']) {
    await db.schema.alterTable(name, (table) => {
      table.dropIndex(['state']);
      table.string('leaseOwner', 80);
      moment(table, 'leaseUntil');
      table.specificType('nextTryAt', 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)');
      table.integer('attempts').unsigned().notNullable().defaultTo(0);
      table.index(['state', 'nextTryAt']);
    });
  }
  const waiting = await plucked(db('jobs').where({ kind: 'picture', state: 'waiting' }), 'subject');
  const rows = waiting.map((video) => ({ id: video, state: 'waiting', nextTryAt: now(db) }));
  await db.batchInsert('pictureHabits', rows, 500);
  await db.schema.dropTable('jobs');
}

import type { Knex } from 'knex';
import { id, moment, refer } from './columns';

const STATES = ['draft', 'packing', 'landing', 'settling', 'clearing', 'proofing', 'opening'] as const;
const LATER_STATES = ['closing', 'removing', 'held', 'live', 'snag', 'removed'] as const;

const statesOf = (table: Knex.CreateTableBuilder, states: readonly string[]) =>
  table
    .enum('state', [...states])
    .notNullable()
    .alter();

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    statesOf(table, [...STATES, ...LATER_STATES]);
    table.enum('openedTo', ['everyone', 'link', 'private']);
    moment(table, 'putOffSince');
    table.enum('putOffBy', ['busy', 'unreachable', 'unexpected']);
  });
  await db('drops').whereNotNull('liveAt').update({ openedTo: 'everyone' });
  // These stood at their sites by link from the moment at which their words were there.
  const byLink = db.raw(`JSON_VALUE(??, '$.privacy') = 'link'`, ['sentWords']);
  await db('drops').whereNull('liveAt').whereNotNull('sentWords').where(byLink).update({ openedTo: 'link' });
  // Held for ever, since everyone was the only end; read back once more, they are done.
  const ends = db.raw(`JSON_VALUE(??, '$.privacy') IN ('link', 'private')`, ['sentWords']);
  await db('drops').where({ state: 'held' }).where(ends).update({ state: 'proofing', nextTryAt: new Date() });
  await db.schema.alterTable('videos', (table) => {
    // The file that a person went back to; undefined takes the newest.
    id(table, 'cutId');
    table.json('meantBlanks');
  });
  // No colour of these was chosen by anybody.
  await db('videos').whereRaw(`JSON_LENGTH(??, '$.colours') = 0`, ['chapterChoice']).update({ chapterChoice: null });
  // No series is given any more without a reason; those that have one keep it.
  await db('videos').where({ seriesFrom: 'last used' }).update({ seriesFrom: 'person' });
  await db.schema.alterTable('videos', (table) => table.enum('seriesFrom', ['file', 'person']).alter());
  await db.schema.alterTable('cuts', (table) => {
    // When the last bytes came, or the page that brings them last said that it is there.
    moment(table, 'heardAt');
    table.index(['fingerprint']);
    table.index(['digest']);
  });
  await db.schema.alterTable('changes', (table) => table.string('madeIn', 60));
  // A title that came from a file's name is that again when its change is undone.
  const titled = (column: string) => db.raw(`CONCAT('{"title":', ??, ',"titleFrom":"person"}')`, [column]);
  await db('changes')
    .where({ field: 'title' })
    .update({ field: 'titled', before: titled('before'), after: titled('after') });
  await db.schema.alterTable('pictures', (table) => {
    id(table, 'formOf');
    refer(table, 'formOf', 'pictures', 'CASCADE');
  });
  await db('cuts')
    .where({ state: 'arriving' })
    .update({ heardAt: db.ref('createdAt') });
  await db.schema.createTable('installation', (table) => {
    table.specificType('id', 'TINYINT UNSIGNED').primary();
    table.string('home', 1000).notNullable();
  });
  await db.schema.createTable('locks', (table) => table.string('name', 60).primary());
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('installation');
  await db.schema.dropTable('locks');
  await db.schema.alterTable('pictures', (table) => {
    table.dropForeign('formOf');
    table.dropColumn('formOf');
  });
  const title = (column: string) => db.raw(`JSON_EXTRACT(??, '$.title')`, [column]);
  await db('changes')
    .where({ field: 'titled' })
    .update({ field: 'title', before: title('before'), after: title('after') });
  await db.schema.alterTable('changes', (table) => table.dropColumn('madeIn'));
  await db.schema.alterTable('cuts', (table) => {
    table.dropIndex(['fingerprint']);
    table.dropIndex(['digest']);
    table.dropColumn('heardAt');
  });
  await db.schema.alterTable('videos', (table) => table.enum('seriesFrom', ['file', 'last used', 'person']).alter());
  await db.schema.alterTable('videos', (table) => table.dropColumns('cutId', 'meantBlanks'));
  await db('drops').where({ state: 'closing' }).update({ state: 'live' });
  await db.schema.alterTable('drops', (table) => {
    statesOf(
      table,
      [...STATES, ...LATER_STATES].filter((state) => state !== 'closing'),
    );
    table.dropColumns('openedTo', 'putOffSince', 'putOffBy');
  });
}

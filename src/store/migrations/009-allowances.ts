import type { Knex } from 'knex';
import { id, moment, refer } from './columns';

export async function up(db: Knex): Promise<void> {
  // What each site has told of the requests that an account may still make.
  await db.schema.createTable('allowances', (table) => {
    id(table, 'accountId').notNullable();
    table.string('policy', 60).notNullable();
    table.integer('quota').unsigned();
    table.integer('remaining').notNullable();
    moment(table, 'resetsAt').notNullable();
    table.primary(['accountId', 'policy']);
    refer(table, 'accountId', 'accounts', 'CASCADE');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('allowances');
}

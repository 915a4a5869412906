import type { Knex } from 'knex';

/** The column of a UUID. */
export const id = (table: Knex.CreateTableBuilder, name: string) =>
  table.specificType(name, 'CHAR(36) CHARACTER SET ascii');
/** The column of a UTC instant, to the millisecond. */
export const moment = (table: Knex.CreateTableBuilder, name: string) => table.specificType(name, 'DATETIME(3)');

/** A column's reference to another table's id. */
export function refer(
  table: Knex.CreateTableBuilder,
  column: string,
  to: string,
  onDelete: 'CASCADE' | 'RESTRICT' | 'SET NULL',
) {
  table.foreign(column).references('id').inTable(to).onDelete(onDelete);
}

/** What a table needs whose rows workers claim. */
export function claimColumns(table: Knex.CreateTableBuilder) {
  table.string('leaseOwner', 80);
  moment(table, 'leaseUntil');
  moment(table, 'nextTryAt').notNullable();
  table.integer('attempts').unsigned().notNullable().defaultTo(0);
}

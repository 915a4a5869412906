import type { Knex } from 'knex';
import * as first from './001-first-slice';

/** All migrations by name, in the order in which they run. */
export const migrations: Record<string, Knex.Migration> = {
  '001-first-slice': first,
};

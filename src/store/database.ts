import os from 'node:os';
import knex, { type Knex } from 'knex';
import { databaseSocket } from './database-socket.mjs';
import { migrations } from './migrations';
import { settings } from './settings';

/** A connection to the database, or a transaction on one: what every function of the store takes first. */
export type Database = Knex;

const DATABASE_NAME = 'kettle_drop';

const snake = (name: string) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
const camel = (name: string) => name.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());

function camelKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(camelKeys);
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) === Date.prototype) return value;
  return Object.fromEntries(Object.entries(value).map(([key, held]) => [camel(key), held]));
}

/** A pool of its own to one database of the server, or to none yet. */
export function connect(database: string | undefined): Knex {
  // Knex's own types do not know of `jsonStrings`; without it the driver parses JSON columns by itself.
  const connection: Knex.MySql2ConnectionConfig & { jsonStrings: boolean } = {
    // By its socket alone, which lets in the owner of the process and nobody else.
    socketPath: databaseSocket(settings().databasePort),
    user: os.userInfo().username,
    database,
    charset: 'utf8mb4',
    timezone: 'Z',
    jsonStrings: true,
  };
  return knex({
    client: 'mysql2',
    connection,
    pool: { min: 0, max: 10 },
    acquireConnectionTimeout: 10_000,
    wrapIdentifier: (name, original) => original(name === '*' ? name : snake(name)),
    postProcessResponse: camelKeys,
  });
}

const holder = globalThis as typeof globalThis & { kettleDatabase?: Knex };

/** The one connection pool of this process. */
export function database(): Knex {
  holder.kettleDatabase ??= connect(DATABASE_NAME);
  return holder.kettleDatabase;
}

const DEADLOCK_TRIES = 5;

/**
 * Does something as one transaction of the process's own pool. Where two hold what the other waits for, the database ends
 * one of them (ER_LOCK_DEADLOCK); that one is made again.
 */
export async function transaction<T>(work: (trx: Database) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await database().transaction(work);
    } catch (error) {
      if ((error as { code?: string }).code !== 'ER_LOCK_DEADLOCK' || tries === DEADLOCK_TRIES) throw error;
    }
  }
}

/** Closes the pool, so that a process can end. */
export async function closeDatabase(): Promise<void> {
  await holder.kettleDatabase?.destroy();
  holder.kettleDatabase = undefined;
}

/** Makes the database where it is missing and brings its tables to the newest form. */
export async function migrate(): Promise<void> {
  const server = connect(undefined);
  try {
    await server.raw(`CREATE DATABASE IF NOT EXISTS ?? CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci`, [
      DATABASE_NAME,
    ]);
  } finally {
    await server.destroy();
  }
  await database().migrate.latest({
    migrationSource: {
      getMigrations: async () => Object.keys(migrations),
      getMigrationName: (name: string) => name,
      getMigration: async (name: string) => {
        const found = migrations[name];
        if (!found) throw new Error(`There is no migration ${name}`);
        return found;
      },
    },
  });
}

/** Reads a JSON column, which the driver is told to hand over as text. */
export function fromJson<T>(text: string | null): T | undefined {
  return text === null ? undefined : (JSON.parse(text) as T);
}

/** A value for a JSON column. */
export function toJson(value: unknown): string | null {
  return value === undefined || value === null ? null : JSON.stringify(value);
}

import { ExponentialBackoff, handleWhen, retry } from 'cockatiel';
import knex, { type Knex } from 'knex';
import { databaseAddress } from '@/store/database-address';
import { migrations } from '@/store/migrations';
import { settings } from '@/store/settings';

/** A connection to the database, or a transaction on one: what every function of the store takes first. */
export type Database = Knex;

/** What a name becomes, worked out once: the same few hundred come in every statement and every row. */
function workedOutOnce(becomes: (name: string) => string): (name: string) => string {
  const known = new Map<string, string>();
  return (name) => {
    const kept = known.get(name);
    if (kept !== undefined) return kept;
    const made = becomes(name);
    known.set(name, made);
    return made;
  };
}

const snake = workedOutOnce((name) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`));
/** Names of columns in our code, by what the database calls them. */
const camel = workedOutOnce((name) => name.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase()));

function camelKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(camelKeys);
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) === Date.prototype) return value;
  const row: Record<string, unknown> = {};
  for (const [key, held] of Object.entries(value)) row[camel(key)] = held;
  return row;
}

const address = () => databaseAddress(settings().databaseUrl, settings().databasePort);

const silent = () => undefined;

/** A pool of its own to one database of the server, or to none yet. */
export function connect(database: string | undefined): Knex {
  // Knex's own types do not know of `jsonStrings`; without it the driver parses JSON columns by itself.
  const connection: Knex.MySql2ConnectionConfig & { jsonStrings: boolean } = {
    ...address(),
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
    // What goes wrong comes as an error to whoever asked; said a second time on the console it is in the way of output.
    log: { warn: silent, error: silent, debug: silent, deprecate: silent },
    wrapIdentifier: (name, original) => original(name === '*' ? name : snake(name)),
    postProcessResponse: camelKeys,
  });
}

const holder = globalThis as typeof globalThis & { kettleDatabase?: Knex };

/** The one connection pool of this process. */
export function database(): Knex {
  holder.kettleDatabase ??= connect(address().database);
  return holder.kettleDatabase;
}

/** Errors of locks: two hold what the other waits for, and the database ends one of them. */
const LOCK_ERRORS = ['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT'];
/** What the database, or its driver, says where the line between them is gone: it was ended, or is being started. */
const LINE_ERRORS = ['PROTOCOL_CONNECTION_LOST', 'ER_SERVER_SHUTDOWN'];
/** Errors of the system in which a line ends; a file has some of them, too, so that they count from the driver alone. */
const SYSTEM_ERRORS = ['ECONNRESET', 'EPIPE', 'ECONNREFUSED', 'ENOENT'];

/** Whether an error says that the database cannot be reached now. */
export function isDatabaseAway(error: unknown): boolean {
  const { code = '', name, fatal } = (error ?? {}) as { code?: unknown; name?: string; fatal?: boolean };
  if (name === 'KnexTimeoutError' || LINE_ERRORS.includes(String(code))) return true;
  // The driver marks what has ended its connection.
  return fatal === true && SYSTEM_ERRORS.includes(String(code));
}

/** A transaction whose work was done when the line broke: whether it holds, nobody knows, so it is not made twice. */
class PerhapsDone extends Error {
  override name = 'PerhapsDone';
}

const isLock = (error: unknown) => LOCK_ERRORS.includes(String((error as { code?: string }).code));
const tries = { maxAttempts: 7, backoff: new ExponentialBackoff({ initialDelay: 10, maxDelay: 1000 }) };
const again = retry(
  handleWhen((error) => isLock(error) || isDatabaseAway(error)),
  tries,
);
const lockedAgain = retry(handleWhen(isLock), tries);

/** Does one statement, and does it again where a lock came between: nothing of it holds then. */
export const throughLocks = <T>(statement: () => Promise<T>): Promise<T> => lockedAgain.execute(statement);

/**
 * Does something as one transaction of the process's own pool. Where a lock or the line came between, nothing of it holds,
 * and it is made again: the one place where this is decided.
 * @throws what the work throws, or the database's own error where it does not pass
 */
export async function transaction<T>(work: (trx: Database) => Promise<T>): Promise<T> {
  return again.execute(async () => {
    let worked = false;
    try {
      return await database().transaction(async (trx) => {
        const made = await work(trx);
        worked = true;
        return made;
      });
    } catch (error) {
      if (worked && isDatabaseAway(error)) throw new PerhapsDone((error as Error).message, { cause: error });
      throw error;
    }
  });
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
      address().database,
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

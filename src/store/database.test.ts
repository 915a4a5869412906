import { statSync } from 'node:fs';
import knex from 'knex';
import { describe, expect, it } from 'vitest';
import { isDatabaseAway } from '@/store/database';

const failing = async (connection: object): Promise<unknown> => {
  const silent = () => undefined;
  const log = { warn: silent, error: silent, debug: silent, deprecate: silent };
  const db = knex({ client: 'mysql2', connection, acquireConnectionTimeout: 3000, log });
  try {
    return await db.raw('SELECT 1').catch((error: unknown) => error);
  } finally {
    await db.destroy();
  }
};

describe('a database that is away', () => {
  it('is one whose socket is not there, or whose port nobody listens on', async () => {
    expect(isDatabaseAway(await failing({ socketPath: '/nowhere/db.sock', user: 'x' }))).toBe(true);
    expect(isDatabaseAway(await failing({ host: '127.0.0.1', port: 1, user: 'x' }))).toBe(true);
  });

  it('is not a file that is missing, nor any other error', () => {
    try {
      statSync('/nowhere/at-all.mp4');
    } catch (error) {
      expect(error).toMatchObject({ code: 'ENOENT' });
      expect(isDatabaseAway(error)).toBe(false);
    }
    expect(isDatabaseAway(Object.assign(new Error('x'), { code: 'ER_NO_SUCH_TABLE' }))).toBe(false);
    expect(isDatabaseAway(undefined)).toBe(false);
  });
});

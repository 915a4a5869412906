import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import knex from 'knex';
import { afterAll, describe, expect, it } from 'vitest';
import { closeDatabase, database } from '@/store/database';
import { databaseSocket } from '@/store/database-socket.mjs';
import { settings } from '@/store/settings';
import { startDatabase } from '../../bin/setup/database.mjs';
import { pathOfProgram } from '../../bin/setup/debian.mjs';
import { endProcess } from '../../bin/setup/processes.mjs';
import { heldPorts } from '../setup/ports';

afterAll(closeDatabase);

async function asRootOverLoopback(port: number): Promise<unknown> {
  const guest = knex({ client: 'mysql2', connection: { host: '127.0.0.1', port, user: 'root' } });
  try {
    return await guest.raw('SELECT 1').catch((error: Error) => error.message);
  } finally {
    await guest.destroy();
  }
}

describe('nobody else on the machine gets into the database', () => {
  it('over loopback, where a name without a password once did', async () => {
    expect(await asRootOverLoopback(settings().databasePort)).toContain('not allowed to connect');
  });

  it('by its socket, or to its files', () => {
    const { home, databasePort } = settings();
    for (const folder of [home, path.dirname(databaseSocket(databasePort))]) {
      expect(statSync(folder).mode & 0o077, folder).toBe(0);
    }
  });

  it('and it writes no files where others might look', async () => {
    const file = path.join(os.tmpdir(), `kettle-outfile-${process.pid}`);
    await expect(database().raw('SELECT 1 INTO OUTFILE ?', [file])).rejects.toThrow('--secure-file-priv');
  });

  it('and takes from no other server what it has begun to sort, nor does another one from it', async () => {
    const [[row]] = await database().raw('SELECT @@tmpdir AS folder');
    expect(row.folder).toBe(path.join(settings().home, 'temporary'));
  });

  it('not where a home of earlier days had accounts without a password', async () => {
    const home = mkdtempSync(path.join(os.tmpdir(), 'kettle-old-home-'));
    const held = await heldPorts(1);
    const port = held.first;
    spawnSync(String(pathOfProgram('mariadb-install-db')), [
      ...['--no-defaults', `--datadir=${path.join(home, 'database')}`, '--auth-root-authentication-method=normal'],
      ...(process.getuid?.() === 0 ? ['--user=root'] : []),
    ]);
    // What another server on the machine may be using just now (MariaDB's mysql_rm_tmp_tables takes all that begin so).
    const others = path.join(os.tmpdir(), `#sql-temptable-${process.pid}-1.MAI`);
    writeFileSync(others, '');
    const old = await startDatabase(home, port);
    try {
      expect(existsSync(others)).toBe(true);
      expect(await asRootOverLoopback(port)).toContain('not allowed to connect');
    } finally {
      await endProcess(old);
      held.release();
      rmSync(others, { force: true });
      for (const folder of [home, path.dirname(databaseSocket(port))]) rmSync(folder, { recursive: true, force: true });
    }
  });
});

it('a socket’s folder that is open to others is not taken', () => {
  const folder = path.dirname(databaseSocket(1));
  chmodSync(folder, 0o755);
  expect(() => databaseSocket(1)).toThrow('is not yours alone');
  rmSync(folder, { recursive: true });
});

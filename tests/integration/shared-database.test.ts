import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { afterAll, describe, expect, it } from 'vitest';
import { closeDatabase, database } from '@/store/database';
import { settings } from '@/store/settings';

afterAll(closeDatabase);

const run = promisify(execFile);

/** Does something in a process of its own, with its own settings. */
async function elsewhere(code: string, env: Record<string, string>): Promise<string> {
  const args = ['--import', 'tsx', '--input-type=module', '-e', code];
  const { stdout } = await run(process.execPath, args, { env: { ...process.env, ...env } });
  return stdout.trim();
}

describe('a database that several machines share', () => {
  it('is reached by its address and a password, migrated, and used like the private one', async () => {
    const password = 'p@ss/word#1';
    await database().raw(`CREATE USER IF NOT EXISTS 'drop'@'127.0.0.1' IDENTIFIED BY ?`, [password]);
    await database().raw(`GRANT ALL ON shared_drop.* TO 'drop'@'127.0.0.1'`);
    try {
      const at = `127.0.0.1:${settings().databasePort}`;
      const url = `mysql://drop:${encodeURIComponent(password)}@${at}/shared_drop`;
      const code = `
        const { migrate, database, closeDatabase } = await import('./src/store/database.ts');
        const { askForJobs, claimJobs } = await import('./src/store/queue/jobs.ts');
        await migrate();
        await askForJobs(database(), 'tidy', ['shared']);
        const [claimed] = await claimJobs(['tidy'], 'elsewhere', 30, 1);
        const { name } = await database().select({ name: database().raw('DATABASE()') }).first();
        console.log(name, claimed.job.subject);
        await closeDatabase();`;
      expect(await elsewhere(code, { KETTLE_DATABASE_URL: url })).toMatch(/shared_drop shared$/);
      // The private one has heard nothing of it.
      expect(await database()('jobs').where({ subject: 'shared' })).toEqual([]);
      const wrong = url.replace(encodeURIComponent(password), 'guess');
      await expect(elsewhere(code, { KETTLE_DATABASE_URL: wrong })).rejects.toThrow(/Access denied/);
    } finally {
      await database().raw('DROP DATABASE IF EXISTS shared_drop');
      await database().raw(`DROP USER IF EXISTS 'drop'@'127.0.0.1'`);
    }
  });
});

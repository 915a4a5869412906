import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';

const MIGRATIONS = 'src/store/migrations';

/** Where the database of these migrations is kept. Made once, it is copied for each machine: that takes a tenth of the time. */
function keptAt(): string {
  const hash = createHash('sha256').update(readFileSync('tests/setup/fresh-database.ts'));
  for (const name of readdirSync(MIGRATIONS).sort()) hash.update(readFileSync(path.join(MIGRATIONS, name)));
  return path.resolve('node_modules/.cache/kettle-test', hash.digest('hex').slice(0, 16));
}

/** Puts a database that is up to date into a home. @returns whether there was one */
export function copyMadeDatabase(home: string): boolean {
  const kept = keptAt();
  if (!existsSync(kept)) return false;
  cpSync(kept, path.join(home, 'database'), { recursive: true });
  return true;
}

/** Keeps the database of a home for others. It has to be at rest. */
export function keepMadeDatabase(home: string): void {
  const kept = keptAt();
  const part = `${kept}.${process.pid}`;
  mkdirSync(path.dirname(kept), { recursive: true });
  cpSync(path.join(home, 'database'), part, { recursive: true });
  for (const name of readdirSync(path.dirname(kept))) {
    // Those of other migrations are of no use any more.
    const isOld = !name.includes('.') && name !== path.basename(kept);
    if (isOld) rmSync(path.join(path.dirname(kept), name), { recursive: true, force: true });
  }
  try {
    renameSync(part, kept);
  } catch {
    // Another process has made it meanwhile.
    rmSync(part, { recursive: true, force: true });
  }
}

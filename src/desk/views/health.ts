import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { secondsSinceWorkerBeat } from '@/store/queue/workers';
import { settings } from '@/store/settings';

/** Whether a part is well, and what was found. */
export interface PartHealth {
  well: boolean;
  says: string;
}

/** How everything is that has to run. */
export interface Health {
  well: boolean;
  database: PartHealth;
  worker: PartHealth;
  disk: PartHealth;
}

const LEAST_FREE_BYTES = 500 * 1024 * 1024;

/** Looks after database, worker and disk. */
export async function lookAtHealth(): Promise<Health> {
  const age = await secondsSinceWorkerBeat(database()).catch((error: Error) => error);
  const databasePart =
    age instanceof Error
      ? { well: false, says: 'The database does not answer.' }
      : { well: true, says: 'The database answers.' };
  const worker =
    typeof age === 'number' && age < settings().leaseSeconds * 2
      ? { well: true, says: `A worker was heard ${age} s ago.` }
      : { well: false, says: 'No worker is heard; drops stand still until one runs.' };
  const free = await files().free();
  const disk = { well: free > LEAST_FREE_BYTES, says: `${Math.floor(free / 1024 ** 2)} MiB are free.` };
  return { well: databasePart.well && worker.well && disk.well, database: databasePart, worker, disk };
}

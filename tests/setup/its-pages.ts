import { afterAll, beforeAll } from 'vitest';
import { closeDatabase } from '@/store/database';
import { processEnvironment } from '../../bin/setup/processes.mjs';
import type { ProcessName } from './machine';
import { itsMachine, type MachineWish } from './machines';

/** The machine of this process of tests, as one file has it. */
export interface ItsPages {
  /** The address of the pages. */
  home: string;
  /** What its processes, and commands beside them, are told. */
  env: Record<string, string | undefined>;
  /** The folder with its logs. */
  folder: string;
  sitesPort: number;
  /** @param settings more for this process alone */
  start(name: ProcessName, settings?: Record<string, string>): Promise<void>;
  end(name: ProcessName, signal?: NodeJS.Signals): Promise<void>;
  /** Kills the database as a bad day would, and starts it again. */
  killDatabase(): Promise<void>;
}

/** A machine as new, with pages, from a file's first test on; called before the file's own hooks, it is there in all of them. */
export function itsPages(wish: MachineWish = {}): ItsPages {
  const { settings, control } = itsMachine();
  const ask = async (what: string, told: object = {}) => {
    const answer = await fetch(`${control}/${what}`, { method: 'POST', body: JSON.stringify(told) });
    if (!answer.ok) throw new Error(await answer.text());
  };
  beforeAll(() => ask('renew', { wish }));
  afterAll(closeDatabase);
  return {
    home: `http://127.0.0.1:${settings.KETTLE_PORT}`,
    env: processEnvironment(process.cwd()),
    folder: settings.KETTLE_HOME ?? '',
    sitesPort: Number(settings.KETTLE_SITES_PORT),
    start: (name, more) => ask('start', { name, settings: more }),
    end: (name, signal) => ask('end', { name, signal }),
    killDatabase: () => ask('kill-database'),
  };
}

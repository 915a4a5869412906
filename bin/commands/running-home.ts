import { existsSync } from 'node:fs';
import path from 'node:path';
import { homeOfInstallation } from '@/store/installation';
import { settings, takeHome } from '@/store/settings';

/**
 * Uses the folder of the Kettle Drop that runs: a database and the files of another one would make a good file look
 * damaged. @throws Error where that folder is not on this machine
 */
export async function takeRunningHome(): Promise<void> {
  const kept = await homeOfInstallation();
  if (kept === undefined || kept === settings().home) return;
  if (!existsSync(path.join(kept, 'files'))) {
    throw new Error(`The Kettle Drop that runs keeps its files in ${kept}, which is not on this machine.`);
  }
  console.error(`The Kettle Drop that runs keeps its things in ${kept}; that folder is used.`);
  takeHome(kept);
}

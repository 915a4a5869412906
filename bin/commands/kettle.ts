import { MANAGER } from '@/core/actor';
import { beActor } from '@/store/actor';
import { runKettle } from './command-line';

// A reader that has seen enough, such as head, is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});

beActor({ who: MANAGER, via: 'command line' });
await runKettle(process.argv.slice(2));
// The marker commands never open the database, and are not to load it only to close it.
if ('kettleDatabase' in globalThis) await (await import('@/store/database')).closeDatabase();

import { setMaxListeners } from 'node:events';
import os from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';
import { noteCutsThatAreWhole } from '@/desk/cut/bring-cut';
import { askForKeeping } from '@/desk/house/tidy-up';
import { log } from '@/desk/log';
import { beActor } from '@/store/actor';
import { closeDatabase, database } from '@/store/database';
import { beatWorker } from '@/store/queue/workers';
import { laneClasses } from './classes';
import { hardware } from './hardware';
import { runLanes } from './lanes';

const BEAT_MILLISECONDS = 3000;

const worker = `${os.hostname()}.${process.pid}.${Date.now().toString(36)}`.slice(-50);
const ending = new AbortController();
// Every class of lanes hears it.
setMaxListeners(0, ending.signal);

async function beat(): Promise<void> {
  while (!ending.signal.aborted) {
    await beatWorker(database(), worker, [...(await hardware()).keys()]).catch((error: Error) =>
      log.error({ error: error.message }, 'no beat'),
    );
    await noteCutsThatAreWhole().catch((error: Error) => log.warn({ error: error.message }, 'arrivals not looked at'));
    await askForKeeping().catch((error: Error) => log.warn({ error: error.message }, 'keeping not asked for'));
    await pause(BEAT_MILLISECONDS, undefined, { signal: ending.signal }).catch(() => undefined);
  }
}

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    ending.abort();
    // What is under way is taken up by the next worker from the byte that the site confirms.
    setTimeout(() => process.exit(0), 1500).unref();
  });
}

beActor({ who: 'worker' });
log.info({ worker }, 'worker starts');
const [drops, jobs] = laneClasses(worker, ending.signal);
await Promise.all([
  beat(),
  ...drops.map((lanes) => runLanes(lanes, ending.signal)),
  ...jobs.map((lanes) => runLanes(lanes, ending.signal)),
]);
await closeDatabase();

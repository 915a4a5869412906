import os from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';
import { WORKING_STATES } from '@/core/drop';
import { log } from '@/desk/log';
import { type Claim, claimNext } from '@/store/claims';
import { closeDatabase, database } from '@/store/database';
import { forgetOldEntries } from '@/store/feed';
import { settings } from '@/store/settings';
import { beatWorker } from '@/store/workers';
import { carryDrop } from './carry-drop';
import { keepPlaylists } from './keep-playlists';
import { makePicture } from './make-picture';
import { measureCut } from './measure-cut';
import { readCut } from './read-cut';

const IDLE_MILLISECONDS = 300;
const BEAT_MILLISECONDS = 3000;
/** Drops that one worker carries side by side; lines are slow, so several fit on one. */
const DROPS_AT_ONCE = 8;

const { leaseSeconds } = settings();
const startedAt = new Date();
const owner = `${os.hostname()}.${process.pid}.${startedAt.getTime().toString(36)}`.slice(-80);
const ending = new AbortController();

/** Claims and works one row after the other. Each lane has a name of its own, so that it gives back its own claims only. */
async function lane(
  name: string,
  table: Claim['table'],
  states: readonly string[],
  work: (claim: Claim) => Promise<void>,
): Promise<void> {
  while (!ending.signal.aborted) {
    try {
      const claim = await claimNext(database(), table, states, `${owner}/${name}`, leaseSeconds);
      if (claim) await work(claim);
      else await pause(IDLE_MILLISECONDS, undefined, { signal: ending.signal });
    } catch (error) {
      if (ending.signal.aborted) return;
      log.error({ error: (error as Error).message }, 'a lane stumbled');
      await pause(2000, undefined, { signal: ending.signal }).catch(() => undefined);
    }
  }
}

async function beat(): Promise<void> {
  while (!ending.signal.aborted) {
    await beatWorker(database(), owner, startedAt).catch((error: Error) =>
      log.error({ error: error.message }, 'no beat'),
    );
    await forgetOldEntries(database()).catch(() => undefined);
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

log.info({ owner }, 'worker starts');
const drops = Array.from({ length: DROPS_AT_ONCE }, (_, n) => lane(`drop-${n}`, 'drops', WORKING_STATES, carryDrop));
const measuring = lane('measure', 'measurements', ['waiting'], measureCut);
await Promise.all([
  beat(),
  lane('cut', 'cuts', ['reading'], readCut),
  measuring,
  lane('picture', 'pictureHabits', ['waiting'], makePicture),
  keepPlaylists(ending.signal),
  ...drops,
]);
await closeDatabase();

import os from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';
import { WORKING_STATES, type WorkingState } from '@/core/drop';
import { noteCutsThatAreWhole } from '@/desk/bring-cut';
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
/** Transfers that one worker carries side by side; lines are slow, so several fit on one. */
const TRANSFERS_AT_ONCE = 8;
/** Short calls to sites, which never wait behind transfers: looks, words, checks. */
const CALLS_AT_ONCE = 4;
/** What a person waits for, or what is seen by the public: it waits behind nothing else. */
const URGENT_AT_ONCE = 3;

const URGENT: readonly WorkingState[] = ['opening', 'closing', 'removing'];
const CALLS = WORKING_STATES.filter((state) => state !== 'landing' && !URGENT.includes(state));

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
    await noteCutsThatAreWhole().catch((error: Error) => log.warn({ error: error.message }, 'arrivals not looked at'));
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
const dropLanes = (name: string, count: number, states: readonly WorkingState[]) =>
  Array.from({ length: count }, (_, n) => lane(`${name}-${n}`, 'drops', states, carryDrop));
const drops = [
  ...dropLanes('transfer', TRANSFERS_AT_ONCE, ['landing']),
  ...dropLanes('call', CALLS_AT_ONCE, CALLS),
  ...dropLanes('urgent', URGENT_AT_ONCE, URGENT),
];
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

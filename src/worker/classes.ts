import { type CarriedState, WORKING_STATES, type WorkingState } from '@/core/drop';
import { database } from '@/store/database';
import { claimDrops } from '@/store/drop/claims';
import type { Claim } from '@/store/queue/claims';
import { sortsDue } from '@/store/queue/due';
import { claimJobs, type Job, type JobKind } from '@/store/queue/jobs';
import { settings } from '@/store/settings';
import { restingChannels } from '@/store/site/circuits';
import { carryDrop } from './carry-drop';
import { DueWork } from './due-work';
import { countInHand, ENCODERS_AT_ONCE, freeTurns } from './jobs/encode-turns';
import type { LaneClass } from './lanes';
import { runJob } from './run-job';

/** Transfers that one worker carries side by side; lines are slow, so several fit on one. */
const TRANSFERS_AT_ONCE = 8;
/** Transfers to one channel, all workers taken together: a site gives one account only so much. */
const TRANSFERS_OF_CHANNEL = 4;
/** Files that go up before their words; what was sent has more lanes. */
const EARLY_AT_ONCE = 3;
/** Short calls to sites, which never wait behind transfers: looks, words, checks. */
const CALLS_AT_ONCE = 4;
/** Live videos that are given what has changed of them. */
const GIVEN_AT_ONCE = 4;
/** What takes a video from the public's sight: it waits behind nothing else. */
const URGENT_AT_ONCE = 3;

const URGENT: readonly WorkingState[] = ['closing', 'removing'];
const CALLS = WORKING_STATES.filter((state) => !['landing', 'opening', ...URGENT].includes(state));
/** What is held is in hand shortly before its moment, and many may open at the same one. */
const RELEASES_AT_ONCE = 64;

interface DropPiece {
  claim: Claim;
}
interface JobPiece {
  claim: Claim;
  job: Job;
}

/** Every class of lanes of a worker of this name. @param ending ends what can be done anew */
export function laneClasses(worker: string, ending: AbortSignal): [LaneClass<DropPiece>[], LaneClass<JobPiece>[]] {
  const { leaseSeconds } = settings();
  const due = new DueWork(() => sortsDue(database()));
  const done = () => due.forget();
  const hear = (wake: () => void) => due.hear(wake);
  const drops = (
    name: string,
    atOnce: number,
    states: readonly CarriedState[],
    rules: { firstTryAlways: boolean; mostOfChannel?: number; alsoResting?: boolean },
  ): LaneClass<DropPiece> => ({
    ...{ name, atOnce, hear },
    async take(most) {
      if (!(await due.has('states', states))) return [];
      const resting = rules.alsoResting ? [] : await restingChannels(database());
      const claims = await claimDrops(`${worker}/${name}`, leaseSeconds, { states, most, resting, ...rules });
      return claims.map((claim) => ({ claim }));
    },
    work: ({ claim }) => carryDrop(claim).finally(done),
  });
  const jobs = (
    name: string,
    atOnce: number,
    kinds: readonly JobKind[],
    free: () => number = () => atOnce,
    counted: (work: () => Promise<void>) => Promise<void> = (work) => work(),
  ): LaneClass<JobPiece> => ({
    ...{ name, atOnce, hear },
    take: async (most) => {
      const wanted = Math.min(most, free());
      if (wanted === 0 || !(await due.has('kinds', kinds))) return [];
      return claimJobs(kinds, `${worker}/${name}`, leaseSeconds, wanted);
    },
    work: ({ claim, job }) => counted(() => runJob(claim, job, ending).finally(done)),
  });
  return [
    [
      drops('transfer', TRANSFERS_AT_ONCE, ['landing'], { firstTryAlways: false, mostOfChannel: TRANSFERS_OF_CHANNEL }),
      drops('call', CALLS_AT_ONCE, CALLS, { firstTryAlways: false }),
      drops('urgent', URGENT_AT_ONCE, URGENT, { firstTryAlways: true }),
      // Its moment does not wait until a site has rested.
      drops('release', RELEASES_AT_ONCE, ['held', 'opening'], { firstTryAlways: true, alsoResting: true }),
    ],
    [
      jobs('read', 1, ['read']),
      jobs('measure', 1, ['measure']),
      // One that is on hold lets another go before it.
      jobs('encode', ENCODERS_AT_ONCE + 1, ['encode'], freeTurns, countInHand),
      jobs('early', EARLY_AT_ONCE, ['early']),
      jobs('plan', 1, ['plan early']),
      jobs('give', GIVEN_AT_ONCE, ['give']),
      jobs('picture', 1, ['picture']),
      jobs('many', 1, ['many']),
      jobs('keep', 1, ['playlists', 'tidy']),
      jobs('read live', 1, ['read live']),
      jobs('watch held', 1, ['watch held']),
      jobs('tell', 2, ['tell']),
      // Only a worker that can see the folder looks into it.
      ...(settings().inbox ? [jobs('inbox', 1, ['inbox'])] : []),
    ],
  ];
}

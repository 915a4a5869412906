import { changedFields, givenParts, type PartName, type PartsGiven } from '@/core/parts';
import { readAgain } from '@/desk/differences/read-again';
import { titlesOf } from '@/desk/drop/changes-since';
import { profileAt, recordOf } from '@/desk/drop/record';
import { log } from '@/desk/log';
import { tell } from '@/desk/notices/tell';
import { askedForDrop } from '@/desk/site/asked-for-drop';
import { isOpenToUs, site } from '@/desk/site/session';
import { AllowanceSpent, SiteError } from '@/sites/contract';
import { type Database, database, transaction } from '@/store/database';
import { dropById, dropNow, moveDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { type Channel, channelById, playlistsOf } from '@/store/site/channels';
import { giveParts, partsThere } from '../steps/give';
import { SnagFound, type StepContext } from '../steps/step';
import type { JobWork } from './job-work';

/** What a site is asked for then, as the page of the drop says it. */
const GIVES_IT = 'set what has changed';
/** A channel that is not open to us is looked at again so soon. */
const CLOSED_SECONDS = 60;

/** Gives the site of a live drop what has changed of it, and reads it back; the drop stays live. */
export const give: JobWork = {
  async run({ job, signal }) {
    const db = database();
    const { drop, now } = (await dropNow(db, job.subject)) ?? {};
    if (!now || drop?.state !== 'live' || !drop.siteVideoId) return {};
    const channel = await channelById(db, drop.channelId);
    if (!channel) return {};
    const { name } = site(channel.site).profile;
    if (!isOpenToUs(channel)) return { again: CLOSED_SECONDS, trouble: `${channel.name} is not connected to ${name}` };
    const before = await partsGiven(drop);
    let given: readonly PartName[] = [];
    try {
      given = await giveTo(drop, channel, signal, now);
    } catch (error) {
      if (needsAWay(error)) return await proofedAgain(drop);
      if (error instanceof AllowanceSpent)
        return { again: error.seconds, trouble: `${name} takes no more requests for now` };
      const why = whyNotTaken(error, name);
      if (why === undefined) throw error;
      await notTaken(drop, why);
    }
    await noteGiven(drop, channel, before);
    try {
      await readAgain((await dropById(db, drop.id)) ?? drop, channel, given);
    } catch (error) {
      // It is read daily, too: what it was given is not given once more for that.
      if (!(error instanceof SiteError)) throw error;
      log.info({ drop: drop.id, why: error.message }, 'live video not read');
    }
    return {};
  },
  async setAside(trx, { subject }, trouble) {
    const drop = await dropById(trx, subject);
    if (drop) await tell(trx, drop, 'needs you', `Changes could not be sent: ${trouble}. Send them again`);
  },
  videoOf: async (db, { subject }) => (await dropById(db, subject))?.videoId,
};

/** Whether the site has no such video, or no longer permits it: then there are more ways on than giving it once more. */
const needsAWay = (error: unknown): boolean =>
  error instanceof SiteError && (error.kind === 'missing' || error.kind === 'permission');

/** Has a worker proof it once more, which finds the same and says what can be done. */
async function proofedAgain(drop: Drop): Promise<object> {
  await transaction(async (trx) => {
    await moveDrop(trx, drop, 'revise', 'The changes did not get through: looked at once more');
    await announce(trx, 'video', drop.videoId);
  });
  return {};
}

/** Why the site did not take it, where a person has to change something. */
function whyNotTaken(error: unknown, name: string): string | undefined {
  if (error instanceof SnagFound) return error.what;
  return error instanceof SiteError && error.kind === 'refused' ? `${name}: ${error.message}` : undefined;
}

/** @param now the database's time when the drop was so */
async function giveTo(drop: Drop, channel: Channel, signal: AbortSignal, now: Date): Promise<readonly PartName[]> {
  const adapter = site(channel.site);
  const record = await recordOf(database(), drop.videoId);
  return askedForDrop(drop.id, channel.accountId, GIVES_IT, 'work', (session) => {
    const context: StepContext = {
      ...{ drop, channel, record, adapter, session, signal, now },
      profile: profileAt(adapter.profile, channel),
      // Who sees it is not changed here, and what the site answers to what it was asked holds wherever the drop has moved since.
      keep: async () => undefined,
    };
    return giveParts(context, drop.siteVideoId ?? '', ['privacy']);
  });
}

const partsGiven = async (drop: Drop) => givenParts(await partsThere({ drop }));

/** Tells what the site has now that it did not have before. */
async function noteGiven(drop: Drop, channel: Channel, before: PartsGiven): Promise<void> {
  const titleOf = titlesOf({ layers: { playlists: await playlistsOf(database(), [channel.id]) } }, channel.id);
  const fields = changedFields(before, await partsGiven(drop), titleOf).map(({ field }) => field);
  if (fields.length === 0) return;
  await transaction(async (trx) => {
    await addDropEvent(trx, drop.id, 'given', `The site has it: ${fields.join(', ')}`);
    await announce(trx, 'video', drop.videoId);
  });
}

const notTaken = (drop: Drop, why: string): Promise<void> =>
  transaction(async (trx: Database) => {
    const says = `Changes were not taken: ${why}`;
    await addDropEvent(trx, drop.id, 'failed', says);
    await tell(trx, drop, 'needs you', `${says}. Change it on the Sheet, then send the changes again`);
  });

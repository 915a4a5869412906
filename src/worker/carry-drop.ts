import { isWorking, type PutOff, type Snag } from '@/core/drop';
import { log } from '@/desk/log';
import { meantWords } from '@/desk/meant';
import { profileAt, recordOf } from '@/desk/record';
import { sessionFor, site } from '@/desk/session';
import { SiteError } from '@/sites/contract';
import { channelById } from '@/store/channels';
import { type Claim, ClaimLost, releaseClaim } from '@/store/claims';
import { database, transaction } from '@/store/database';
import {
  addDropEvent,
  type Drop,
  type DropFields,
  dropById,
  moveDrop,
  postponeDrop,
  setClaimedDrop,
} from '@/store/drops';
import { announce } from '@/store/feed';
import { keepClaim } from './keep-claim';
import { putOff } from './put-off';
import { STEPS } from './steps';
import { SnagFound, type StepContext, type StepEnd } from './steps/step';

const LONGEST_PAUSE_SECONDS = 60;
const UNEXPECTED_TRIES = 5;

/** Runs the step of one claimed drop and writes down how it ended. */
export async function carryDrop(claim: Claim): Promise<void> {
  const db = database();
  const kept = keepClaim(claim);
  let drop: Drop | undefined;
  try {
    drop = await dropById(db, claim.id);
    if (!drop || !isWorking(drop.state)) return;
    await end(claim, drop, await run(claim, drop, drop.state, kept.gone));
  } catch (error) {
    if (error instanceof ClaimLost || kept.gone.aborted) {
      log.info({ drop: claim.id }, 'drop taken out of our hands');
      return;
    }
    if (!drop) return await putOff(claim, error);
    await trouble(claim, drop, error).catch((second) => putOff(claim, second));
  } finally {
    kept.letGo();
    await releaseClaim(db, claim);
    if (drop) await announce(db, 'video', drop.videoId);
  }
}

async function run(claim: Claim, drop: Drop, state: keyof typeof STEPS, signal: AbortSignal): Promise<StepEnd> {
  const db = database();
  const channel = await channelById(db, drop.channelId);
  if (!channel) throw new SnagFound('missing', 'The channel is gone', 'Connect it again, then try again');
  const { profile } = site(channel.site);
  if (channel.accountState !== 'connected' || !channel.granted) {
    throw new SnagFound(
      'permission',
      `${channel.name} is not connected to ${profile.name}`,
      'Connect it again on Channels',
    );
  }
  const context = {
    drop,
    channel,
    record: await recordOf(db, drop.videoId),
    adapter: site(channel.site),
    profile: profileAt(profile, channel),
    session: sessionFor(channel.accountId),
    signal,
    async keep(fields: DropFields) {
      await setClaimedDrop(db, claim, fields);
      await announce(db, 'video', drop.videoId);
    },
  };
  if (state !== 'removing' && state !== 'closing') refuseOtherEnds(context);
  return STEPS[state](context);
}

/** Stops a drop whose video was set to what the site cannot keep, before the site opens it all the same. */
function refuseOtherEnds({ record, channel, drop, profile }: StepContext): void {
  const { end, waitsForWord } = meantWords(record, channel, drop, profile);
  if (end in profile.privacies && !(waitsForWord && profile.opensItself)) return;
  const kept = waitsForWord ? 'waiting for your word' : end === 'link' ? 'by link only' : 'private';
  const what = `${profile.name} cannot keep it ${kept}`;
  const remedy = profile.opensItself
    ? 'Remove it there, or it opens once it is approved'
    : 'Set another privacy for this channel, or remove it there';
  throw new SnagFound('refused', what, remedy);
}

async function end(claim: Claim, drop: Drop, ended: StepEnd): Promise<void> {
  const db = database();
  if ('again' in ended) {
    const fields = { attempts: 0, putOffSince: undefined, putOffBy: undefined, ...ended.fields };
    await postponeDrop(db, claim, new Date(Date.now() + ended.again * 1000), fields);
    return;
  }
  const state = await db.transaction((trx) => moveDrop(trx, drop, ended.move, ended.says, ended.fields, claim));
  log.info({ drop: drop.id, video: drop.videoId, from: drop.state, to: state }, 'drop moved');
}

async function trouble(claim: Claim, drop: Drop, error: unknown): Promise<void> {
  const channel = await channelById(database(), drop.channelId);
  const name = channel ? site(channel.site).profile.name : 'The site';
  if (error instanceof SnagFound) return snag(claim, drop, error.kind, error.what, error.remedy, error.more);
  if (error instanceof SiteError) {
    switch (error.kind) {
      case 'busy':
        return comeBack(claim, drop, 'busy', `${name} asks to wait`, error.retryAfter);
      case 'unreachable':
        return comeBack(claim, drop, 'unreachable', `${name}: ${lowerFirst(error.message)}`);
      case 'permission':
        return snag(claim, drop, 'permission', `${name} no longer permits it`, 'Connect the account again on Channels');
      case 'missing':
        return snag(claim, drop, 'missing', `The video is gone from ${name}`, 'Try again to send it anew');
      case 'refused':
        return snag(claim, drop, 'refused', `${name}: ${error.message}`, 'Change it on the Sheet, then try again');
    }
  }
  const says = error instanceof Error ? error.message : String(error);
  log.error({ drop: drop.id, error: says, stack: error instanceof Error ? error.stack : undefined }, 'unexpected');
  if (drop.attempts < UNEXPECTED_TRIES) return comeBack(claim, drop, 'unexpected', 'Something unexpected happened');
  return snag(claim, drop, 'refused', `Something unexpected happened: ${says}`, 'Try again; the logs say more');
}

async function comeBack(claim: Claim, drop: Drop, putOffBy: PutOff, why: string, retryAfter?: number): Promise<void> {
  const db = database();
  // What has come over meanwhile counts as success: a line that breaks often still gets there without long pauses.
  const now = (await dropById(db, drop.id)) ?? drop;
  const goesOn = now.bytesSent > drop.bytesSent;
  const attempts = goesOn ? 1 : drop.attempts + 1;
  const putOffSince = goesOn ? new Date() : (drop.putOffSince ?? new Date());
  const seconds = retryAfter ?? Math.min(LONGEST_PAUSE_SECONDS, 2 ** (attempts - 1));
  const waiting = `${why}; tries again in ${seconds} s`;
  const fields = { attempts, waiting, putOffSince, putOffBy, progress: undefined };
  await postponeDrop(db, claim, new Date(Date.now() + seconds * 1000), fields);
  if (attempts === 1) await addDropEvent(db, drop.id, 'waits', why);
  log.warn({ drop: drop.id, why, seconds }, 'drop waits');
}

async function snag(
  claim: Claim,
  drop: Drop,
  kind: Snag['kind'],
  what: string,
  remedy: string,
  more: SnagFound['more'] = {},
): Promise<void> {
  if (!isWorking(drop.state)) return;
  const found: Snag = { at: drop.state, kind, what, remedy, ...more };
  await transaction((trx) => moveDrop(trx, drop, 'snag', `${what}. ${remedy}.`, { snag: found }, claim));
  log.warn({ drop: drop.id, kind, what }, 'snag');
}

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

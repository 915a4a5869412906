import { type End, isCarried, type PutOff, type Snag } from '@/core/drop';
import type { NoticeKind } from '@/core/notices';
import { type Use, whatFollows } from '@/core/work';
import { meantWords } from '@/desk/drop/meant';
import { profileAt, recordOf } from '@/desk/drop/record';
import { log } from '@/desk/log';
import { tell } from '@/desk/notices/tell';
import { askedForDrop } from '@/desk/site/asked-for-drop';
import { isOpenToUs, site } from '@/desk/site/session';
import { deleteIfAsked } from '@/desk/video/delete-video';
import { AllowanceSpent, SiteError } from '@/sites/contract';
import { databaseTime } from '@/store/clock';
import { type Database, database, transaction } from '@/store/database';
import { postponeDrop, postponeUnreadDrop, triesOfDrop } from '@/store/drop/claims';
import { dropById, dropNow, moveDrop, setClaimedDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { type Claim, ClaimLost, releaseClaim } from '@/store/queue/claims';
import { isConnectedSince } from '@/store/site/accounts';
import { channelById } from '@/store/site/channels';
import { noteSiteFailed, noteSiteWell } from '@/store/site/circuits';
import { PURPOSES } from './asked-for';
import { happenedBy } from './happened';
import { keepClaim } from './keep-claim';
import { STEPS } from './steps';
import { narrowFormer } from './steps/former';
import { heldUse } from './steps/hold';
import { SnagFound, type StepContext, type StepEnd } from './steps/step';
import { isFullDisk, tellFullDisk } from './tell-full-disk';
import { tellIfStuck, tellLate } from './tell-late';

/** Runs the step of one claimed drop and writes down how it ended. */
export async function carryDrop(claim: Claim): Promise<void> {
  const db = database();
  const kept = keepClaim(claim);
  let [drop, since, isLetGo]: [Drop | undefined, Date, boolean] = [undefined, new Date(), false];
  const look = async (): Promise<Drop | undefined> => {
    const found = await dropNow(db, claim.id);
    since = found?.now ?? since;
    return found?.drop;
  };
  try {
    drop = await look();
    while (drop && isCarried(drop.state)) {
      isLetGo = !(await end(claim, drop, await run(claim, drop, drop.state, since, kept.gone)));
      if (isLetGo) return;
      drop = (await look()) ?? drop;
    }
  } catch (error) {
    if (error instanceof ClaimLost || kept.gone.aborted) {
      log.info({ drop: claim.id }, 'drop taken out of our hands');
      return;
    }
    if (!drop) return await putOff(claim, error);
    await trouble(claim, drop, error, since).catch((second) => putOff(claim, second));
  } finally {
    kept.letGo();
    if (!isLetGo) await releaseClaim(db, claim);
    if (drop) await announce(db, 'video', drop.videoId);
  }
}

/** What is held is tried again so long before its moment. */
const BEFORE_OPENING_SECONDS = 2;

/** What a step asks its site for. */
const USES: Record<Exclude<keyof typeof STEPS, 'held'>, Use> = {
  packing: 'work',
  landing: 'work',
  settling: 'look',
  clearing: 'look',
  proofing: 'work',
  opening: 'urgent',
  closing: 'urgent',
  removing: 'urgent',
};

const usedFor = (state: keyof typeof USES, { amongMany }: Drop): Use =>
  amongMany && USES[state] === 'work' ? 'many' : USES[state];

async function run(
  claim: Claim,
  drop: Drop,
  state: keyof typeof STEPS,
  now: Date,
  signal: AbortSignal,
): Promise<StepEnd> {
  const db = database();
  const channel = await channelById(db, drop.channelId);
  if (!channel) throw new SnagFound('missing', 'The channel is gone', 'Connect it again, then try again');
  const { profile } = site(channel.site);
  if (!isOpenToUs(channel)) {
    throw new SnagFound(
      'permission',
      `${channel.name} is not connected to ${profile.name}`,
      'Connect it again on Channels',
    );
  }
  let heardWell = false;
  const record = await recordOf(db, drop.videoId);
  const meant = () => meantWords(record, channel, drop, profileAt(profile, channel));
  const use = state === 'held' ? heldUse(drop, meant(), now) : usedFor(state, drop);
  const answered = tellIfStuck(drop, channel.site, `${profile.name} has not answered yet`);
  const ended = await askedForDrop(drop.id, channel.accountId, PURPOSES[state], use, async (session) => {
    const context = {
      drop,
      channel,
      record,
      adapter: site(channel.site),
      profile: profileAt(profile, channel),
      session,
      signal,
      now,
      async keep(fields: DropFields, trx: Database = db) {
        await setClaimedDrop(trx, claim, fields);
        // Bytes that go over say that the site is well, long before the step is done.
        if (!heardWell && (fields.bytesSent ?? 0) > drop.bytesSent) {
          heardWell = true;
          await noteSiteWell(db, channel.site);
        }
        await announce(trx, 'video', drop.videoId);
      },
    };
    if (state !== 'removing' && state !== 'closing') {
      refuseOtherEnds(context);
      await narrowFormer(context);
    }
    return STEPS[state](context);
  }).finally(answered);
  // Packing asks the site nothing, so it says nothing of it.
  if (state !== 'packing') await noteSiteWell(db, channel.site);
  return ended;
}

const WAITING = {
  'on my word': 'waiting until you say so',
  'at a time': 'closed until a set time',
  'first showing': 'closed until a set time',
  together: 'closed until the others are checked',
} as const;

const KEPT_WORDS: Record<End, string> = {
  everyone: 'open',
  link: 'by link only',
  password: 'behind a password',
  private: 'private',
};

/** Stops a drop whose video was set to what the site cannot keep, before the site opens it all the same. */
function refuseOtherEnds({ record, channel, drop, profile }: StepContext): void {
  const { end, waitsFor } = meantWords(record, channel, drop, profile);
  if (end in profile.privacies && !(waitsFor && profile.opensItself)) return;
  const kept = waitsFor ? WAITING[waitsFor] : KEPT_WORDS[end];
  const what = `${profile.name} cannot keep it ${kept}`;
  const remedy = profile.opensItself
    ? 'Remove it there, or it opens once it is approved'
    : 'Set another privacy for this channel, or remove it there';
  throw new SnagFound('refused', what, remedy);
}

/** Writes down how a step ended. Whether the next follows in the same hands is returned. */
async function end(claim: Claim, drop: Drop, ended: StepEnd): Promise<boolean> {
  const db = database();
  if ('again' in ended) {
    const fields = { attempts: 0, putOffSince: undefined, putOffBy: undefined, ...ended.fields };
    await postponeDrop(db, claim, ended.again, fields);
    return false;
  }
  const goesOn = ended.goesOn === true;
  const state = await transaction(async (trx) => {
    const next = await moveDrop(trx, drop, ended.move, ended.says, ended.fields, claim, goesOn);
    if (ended.tells) await tell(trx, drop, ended.tells, ended.says, ended.sharing);
    return next;
  });
  claim.state = state;
  log.info({ drop: drop.id, video: drop.videoId, from: drop.state, to: state }, 'drop moved');
  if (state !== 'removed') return goesOn;
  // The drop is where it should be; a video that could not be deleted now is deleted when the house is tidied.
  await deleteIfAsked(drop.videoId).catch((error: Error) => {
    log.warn({ video: drop.videoId, why: error.message }, 'video not deleted yet');
  });
  return false;
}

/** Puts a drop off of which nothing could be read, or whose trouble could not be written down. */
async function putOff(claim: Claim, error: unknown): Promise<void> {
  const db = database();
  const follows = whatFollows({ what: 'machine' }, (await triesOfDrop(db, claim.id)) + 1, Math.random());
  const seconds = follows.next === 'later' ? follows.seconds : 0;
  log.error({ drop: claim.id, seconds, why: (error as Error).message }, 'put off');
  await postponeUnreadDrop(db, claim, seconds);
}

/** @param since the database's time when the step began */
async function trouble(claim: Claim, drop: Drop, error: unknown, since: Date): Promise<void> {
  const db = database();
  const channel = await channelById(db, drop.channelId);
  const name = channel ? site(channel.site).profile.name : 'The site';
  if (channel && drop.state !== 'packing' && hasAnswered(error)) await noteSiteWell(db, channel.site);
  const connectedMeanwhile = async (trx: Database) =>
    isPermission(error) && channel !== undefined && (await isConnectedSince(trx, channel.accountId, since));
  const snag = async (
    kind: Snag['kind'],
    what: string,
    remedy: string,
    more: SnagFound['more'] = {},
    tells?: NoticeKind,
  ) => {
    if (await writeSnag(claim, drop, { kind, what, remedy, ...more }, connectedMeanwhile, tells)) return;
    await comeBack(claim, drop, 1, 'It was connected again meanwhile', { attempts: drop.attempts, putOffBy: 'busy' });
  };
  if (error instanceof AllowanceSpent) {
    // No try has failed: it was not made.
    const why = `${name} takes no more requests for now`;
    const { attempts, putOffSince } = drop;
    if (channel) await tellLate(drop, channel.site, why);
    return comeBack(claim, drop, error.seconds, why, { attempts, putOffBy: 'busy', putOffSince });
  }
  if (error instanceof SnagFound) return snag(error.kind, error.what, error.remedy, error.more, error.tells);
  if (error instanceof SiteError) {
    switch (error.kind) {
      case 'permission':
        return snag('permission', `${name} no longer permits it`, 'Connect the account again on Channels');
      case 'missing':
        return snag('missing', `The video is gone from ${name}`, 'Try again to send it once more');
      case 'refused':
        return snag('refused', `${name}: ${error.message}`, 'Change it on the Sheet, then try again');
    }
  }
  // What has come over meanwhile counts as success: a line that breaks often still gets there without long pauses.
  const now = (await dropById(db, drop.id)) ?? drop;
  const goesOn = now.bytesSent > drop.bytesSent;
  const happened = happenedBy(error);
  const says = error instanceof Error ? error.message : String(error);
  if (error instanceof SiteError && error.kind === 'conflict') {
    // The site is well: it answers, of this one video, that something is in the way.
    log.info({ drop: drop.id, says }, 'conflict at the site');
  } else if (!(error instanceof SiteError)) {
    log.error({ drop: drop.id, error: says, stack: error instanceof Error ? error.stack : undefined }, happened.what);
  } else if (channel && !goesOn) {
    // A site that is not there has said nothing.
    const said = error.kind === 'busy' ? says : '';
    await noteSiteFailed(channel.site, said, Math.random(), error.retryAfter);
  }
  const attempts = goesOn ? 1 : drop.attempts + 1;
  const follows = whatFollows(happened, attempts, Math.random(), drop.state === 'opening');
  if (follows.next === 'a person' && error instanceof SiteError) {
    return snag('refused', `${name}: ${says}`, 'Change it on the Sheet, then try again');
  }
  if (follows.next === 'a person') {
    return snag('refused', `Something unexpected happened: ${says}`, 'Try again; the logs say more');
  }
  if (isFullDisk(error)) await tellFullDisk();
  const { why, putOffBy } = putOffSays(error, name, happened.what);
  const putOffSince = goesOn ? undefined : drop.putOffSince;
  if (channel) await tellLate(drop, channel.site, why);
  await comeBack(claim, drop, follows.seconds, why, { attempts, putOffBy, putOffSince });
}

const isPermission = (error: unknown) =>
  (error instanceof SnagFound || error instanceof SiteError) && error.kind === 'permission';

/** Whether what went wrong is something that the site itself has said: then it is there, and works. */
function hasAnswered(error: unknown): boolean {
  if (error instanceof SnagFound) return error.kind !== 'permission' && error.kind !== 'file';
  return error instanceof SiteError && error.kind !== 'busy' && error.kind !== 'unreachable';
}

function putOffSays(error: unknown, site: string, happened: string): { why: string; putOffBy: PutOff } {
  if (happened === 'busy') return { why: `${site} asks to wait`, putOffBy: 'busy' };
  if (happened === 'unreachable') {
    return { why: `${site}: ${lowerFirst((error as Error).message)}`, putOffBy: 'unreachable' };
  }
  if (error instanceof SiteError) return { why: `${site}: ${lowerFirst(error.message)}`, putOffBy: 'busy' };
  if (happened === 'machine') return { why: `This machine: ${machineSays(error)}`, putOffBy: 'unexpected' };
  return { why: 'Something unexpected happened', putOffBy: 'unexpected' };
}

function machineSays(error: unknown): string {
  return isFullDisk(error) ? 'the disk is full; make room' : lowerFirst((error as Error).message);
}

async function comeBack(
  claim: Claim,
  drop: Drop,
  seconds: number,
  why: string,
  fields: Pick<DropFields, 'attempts' | 'putOffBy' | 'putOffSince'>,
): Promise<void> {
  const db = database();
  const waiting = `${why}; tries again in ${Math.max(1, Math.round(seconds))} s`.slice(0, 500);
  const now = await databaseTime(db);
  const putOffSince = fields.putOffSince ?? now;
  // What is held is in hand again before its moment, however the site is.
  const opensAt = drop.state === 'held' ? (await dropById(db, drop.id))?.opensAt : undefined;
  const left = opensAt ? (opensAt.getTime() - now.getTime()) / 1000 - BEFORE_OPENING_SECONDS : seconds;
  await postponeDrop(db, claim, Math.max(0, Math.min(seconds, left)), {
    ...fields,
    waiting,
    putOffSince,
    progress: undefined,
  });
  if (fields.attempts === 1) await addDropEvent(db, drop.id, 'waits', why);
  log.warn({ drop: drop.id, why, seconds }, 'drop waits');
}

/**
 * Writes down what only a person can settle. Whether it was written is returned.
 * @param unless looks, in the same transaction, whether it has just been settled
 */
async function writeSnag(
  claim: Claim,
  drop: Drop,
  snag: Omit<Snag, 'at'>,
  unless: (trx: Database) => Promise<boolean>,
  tells: NoticeKind = 'needs you',
): Promise<boolean> {
  const { state } = drop;
  if (!isCarried(state)) return true;
  return transaction(async (trx) => {
    if (await unless(trx)) return false;
    await moveDrop(trx, drop, 'snag', `${snag.what}. ${snag.remedy}.`, { snag: { ...snag, at: state } }, claim);
    const says = `${snag.what}. ${snag.remedy}.`;
    await tell(trx, drop, tells, says, STOPS_MORE.includes(snag.kind) ? says : undefined);
    log.warn({ drop: drop.id, kind: snag.kind, what: snag.what }, 'snag');
    return true;
  });
}

/** What stops other drops of its channel, too: those of which the same is said are told of as one. */
const STOPS_MORE: readonly Snag['kind'][] = ['missed', 'permission'];

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

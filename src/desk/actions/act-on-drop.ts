import { object, string } from 'yup';
import {
  type End,
  goesUpAnew,
  isOpenTo,
  type MoveName,
  mayAccept,
  mayMove,
  OPEN_TO,
  openEnd,
  type SnagKind,
} from '@/core/drop';
import { needsPerson } from '@/core/rights';
import type { SiteAdapter, SiteProfile } from '@/sites/contract';
import { type Database, database, transaction } from '@/store/database';
import { dropById, moveDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import { forgetGiven } from '@/store/drop/parts';
import { matchesOf } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import { giveWord, takeWordBack } from '@/store/drop/words';
import { announce } from '@/store/feed';
import { renditionAgain, renditionsOf } from '@/store/files/renditions';
import { askForJobsAnew } from '@/store/queue/jobs';
import { videoById } from '@/store/record/videos';
import { settings } from '@/store/settings';
import { type Channel, channelById } from '@/store/site/channels';
import { change } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { leaveAsShown } from '../differences/leave-as-shown';
import { opensToMore } from '../drop/after-proof';
import { behindLinkFields, closeFormer, goesBehindLink, keepFormer, sendBetterFile } from '../drop/better-file';
import { changedMeanwhile, makeMove, orChangedMeanwhile } from '../drop/make-move';
import { goesToEnd, type MeantWords, meantWords } from '../drop/meant';
import { otherFile } from '../drop/other-file';
import { recordOf } from '../drop/record';
import { reviseVideo } from '../drop/send';
import { sentAnewFields } from '../drop/send-anew';
import { revisesWith, sendsWith } from '../layers/layers';
import { log } from '../log';
import { settleMatches } from '../rights/settle-matches';
import { site } from '../site/session';
import { meanOpenAgain } from './open-again';

/** What a person may do with a drop that is under way. */
export const DROP_ACTIONS = [
  'open',
  'not yet',
  'try again',
  'accept',
  'revise',
  'take over',
  'new file',
  'new file, remove',
  'keep the old file',
  'close',
  'open again',
  'remove',
] as const;
export type DropAction = (typeof DROP_ACTIONS)[number];

/** The moves that each may make; a word to open, and taking it back, are none. */
const MOVES_OF: Record<Exclude<DropAction, 'open' | 'not yet'>, readonly MoveName[]> = {
  'try again': ['tryAgain', 'sendAnew'],
  accept: ['tryAgain', 'acceptAndHold', 'acceptAndOpen'],
  revise: ['revise'],
  'take over': ['revise'],
  'new file': ['sendInPlace'],
  'new file, remove': ['sendInPlace'],
  'keep the old file': ['keepFormer'],
  close: ['close'],
  'open again': ['revise'],
  remove: ['remove'],
};

type ActedOn = Pick<Drop, 'state' | 'snag' | 'openedTo' | 'openAsked' | 'former' | 'closedFrom'>;

/** What a person may do with a drop now. @param end who is to see it in the end, as its record says */
export function actionsFor(drop: ActedOn, { abilities, privacies }: SiteProfile, end: End): DropAction[] {
  const isOpen = isOpenTo(drop.openedTo);
  return DROP_ACTIONS.filter((action) => {
    if (action === 'remove' && !abilities.removes) return false;
    if (action === 'accept' && !mayAccept(drop.snag)) return false;
    // What nobody else is to see any more is not opened by this word.
    if (action === 'open') return end !== 'private' && (isHeld(drop) ? !drop.openAsked : stoodHeld(drop));
    if (action === 'keep the old file' && !drop.former) return false;
    if (action === 'new file, remove' && (abilities.swapsFiles || !abilities.removes)) return false;
    if (action === 'close' && drop.former) return isOpenTo(drop.former.openedTo) && 'private' in privacies;
    if (action === 'open again' && !(isClosed(drop) && end === 'private')) return false;
    if (action === 'not yet') return isHeld(drop) && drop.openAsked;
    if (action === 'close' && !((isOpen || drop.state === 'opening') && 'private' in privacies)) return false;
    return MOVES_OF[action].some((move) => mayMove(move, drop.state, drop.snag));
  });
}

const isHeld = ({ state }: ActedOn) => state === 'held';
const isClosed = ({ state, openedTo, closedFrom }: ActedOn) =>
  state === 'live' && openedTo === 'private' && closedFrom !== undefined;
const OPENED_ALL_THE_SAME: readonly SnagKind[] = ['missed', 'difference', 'file'];
/** Whether it stands still though it was checked: its moment was missed, its file was replaced, or somebody has changed it there. */
const stoodHeld = ({ state, snag }: ActedOn) =>
  state === 'snag' && snag?.at === 'held' && OPENED_ALL_THE_SAME.includes(snag.kind);

const actionShape = object({ action: string().oneOf(DROP_ACTIONS).required() }).noUnknown();

/**
 * Does with a drop what a person has asked for.
 * @param holdSeconds in which a person can stop what opens; no page can leave them out
 * @throws DeskError where it may not follow now
 */
export async function actOnDrop(
  dropId: string,
  input: unknown,
  holdSeconds: number = settings().holdSeconds,
): Promise<void> {
  const { action } = await actionShape.validate(input, { stripUnknown: false });
  const db = database();
  const drop = found(await dropById(db, dropId), 'drop');
  const channel = found(await channelById(db, drop.channelId), 'channel');
  const adapter = site(channel.site);
  log.info({ drop: dropId, action }, 'asked of a drop');
  switch (action) {
    case 'open':
      return open(drop, channel, adapter, holdSeconds);
    case 'not yet':
      return notYet(drop);
    case 'revise':
      return revise(drop, channel);
    case 'new file':
      return sendBetterFile(drop, channel, adapter, 'close');
    case 'new file, remove':
      return sendBetterFile(drop, channel, adapter, 'remove');
    case 'keep the old file':
      return keepFormer(drop);
    case 'take over':
      return revise(drop, channel, revisesWith);
    case 'close':
      return close(drop, channel, adapter);
    case 'open again':
      await meanOpenAgain(drop, channel);
      return revise(found(await dropById(db, dropId), 'drop'), channel);
    case 'remove':
      return makeMove(drop, 'remove', `Being removed from ${adapter.profile.name}`);
    case 'accept':
      return accept(drop, channel, adapter);
    case 'try again':
      return tryAgain(drop, channel);
  }
}

async function open(drop: Drop, channel: Channel, { profile }: SiteAdapter, seconds: number): Promise<void> {
  const { end } = meantWords(await recordOf(database(), drop.videoId), channel, drop, profile);
  if (end === 'private') {
    throw new DeskError('not now', `This video is set to private for ${channel.name}. Say first who may see it.`);
  }
  return sayThatItOpens(drop, end, seconds);
}

/** Gives the word to open a drop that is held, or stood still so: it takes effect in the seconds that one has to stop it. */
async function sayThatItOpens(drop: Drop, to: End, seconds = settings().holdSeconds): Promise<void> {
  await transaction(async (trx) => {
    const now = found(await dropById(trx, drop.id, true), 'drop');
    if (stoodHeld(now)) await moveDrop(trx, now, 'tryAgain', 'To be opened all the same');
    if (!(await giveWord(trx, drop.id, seconds))) throw changedMeanwhile();
    const [whom, soon] = [OPEN_TO[openEnd(to)], seconds > 0 ? ` in ${seconds} s` : ''];
    await addDropEvent(trx, drop.id, 'word', `Opens ${whom}${soon}, as you said`);
    await announce(trx, 'video', drop.videoId);
  });
}

/** Takes the word back to open a drop, while it has not taken effect. */
async function notYet(drop: Drop): Promise<void> {
  await transaction(async (trx) => {
    if (!(await takeWordBack(trx, drop.id)))
      throw new DeskError('not now', 'It is too late: it is being opened. Close it instead.');
    await addDropEvent(trx, drop.id, 'word', 'Not opened: you took it back');
    await announce(trx, 'video', drop.videoId);
  });
}

async function revise(drop: Drop, channel: Channel, asks?: typeof sendsWith): Promise<void> {
  if (!mayMove('revise', drop.state)) {
    throw changedMeanwhile();
  }
  const { notReady } = await reviseVideo(drop.videoId, [channel.id], asks);
  const [not] = notReady;
  if (not) throw new DeskError('not now', `${channel.name} does not take it like this: ${not.missing.join('; ')}.`);
}

/** Takes a video from everybody's sight. The record says so from now on, for this channel, and undo brings it back there. */
async function close(drop: Drop, channel: Channel, adapter: SiteAdapter): Promise<void> {
  const { profile } = adapter;
  if (!('private' in profile.privacies)) {
    throw new DeskError('not now', `${profile.name} has nothing private. Remove the video there instead.`);
  }
  if (drop.former) {
    await transaction((trx) => setPrivateThere(trx, drop, channel));
    return closeFormer(drop, adapter, channel.accountId);
  }
  return orChangedMeanwhile(() =>
    transaction(async (trx) => {
      await setPrivateThere(trx, drop, channel);
      const now = found(await dropById(trx, drop.id, true), 'drop');
      // What was open is being closed by that already.
      if (now.state !== 'closing') await moveDrop(trx, now, 'close', 'Being closed: private', { openAsked: false });
      await announce(trx, 'video', drop.videoId);
    }),
  );
}

/** The record says from now on that nobody else sees it there. */
async function setPrivateThere(trx: Database, drop: Drop, channel: Channel): Promise<void> {
  await videoById(trx, drop.videoId, true);
  const { own } = found(await dropById(trx, drop.id, true), 'drop');
  const after = { ...own, privacy: 'private' as const };
  await change(trx, drop.videoId, 'onChannel', { id: channel.id, own }, { id: channel.id, own: after });
}

async function tryAgain(drop: Drop, channel: Channel): Promise<void> {
  const { snag } = drop;
  if (snag?.at === 'packing') return packAgain(drop, channel);
  // What was turned down in review is handed in anew with the words as they are now.
  const forget = async (trx: Database) => {
    if (snag?.kind === 'review') await forgetGiven(trx, drop);
  };
  const hasOther = (await otherFile(database(), await recordOf(database(), drop.videoId), drop)) === 'here';
  if (!snag || !goesUpAnew(snag, hasOther)) return makeMove(drop, 'tryAgain', 'Tried again by hand', {}, forget);
  // What the site has lost, or could not process, goes up as it was.
  if (!goesUpAnew(snag, false)) return sendOtherFile(drop, channel);
  return makeMove(drop, 'sendAnew', 'Sent again by hand', sentAnewFields(drop));
}

/**
 * Sends the file in use in the place of the one with the match, or that was turned down. What was done to parts of that one is
 * not done to this.
 */
async function sendOtherFile(drop: Drop, channel: Channel): Promise<void> {
  const adapter = site(channel.site);
  if (goesBehindLink(drop, adapter.profile.abilities)) {
    const fields = await behindLinkFields(drop, channel, adapter);
    return makeMove(
      drop,
      'sendAnew',
      'The new file goes up, and takes the place of the one there, at its link',
      fields,
    );
  }
  const { layers, video } = await recordOf(database(), drop.videoId);
  const fields = { ...sentAnewFields(drop), sentWith: sendsWith(layers, video, channel, drop) };
  return makeMove(drop, 'sendAnew', 'Sent again with the new file', fields);
}

/** Nothing has gone out yet: today's settings and remedies hold, and a file that could not be made is made anew. */
async function packAgain(drop: Drop, channel: Channel): Promise<void> {
  const { layers, video, cut } = await recordOf(database(), drop.videoId);
  const fields = { sentWith: sendsWith(layers, video, channel, drop) };
  return makeMove(drop, 'tryAgain', 'Tried again by hand', fields, async (trx) => {
    const failed = (await renditionsOf(trx, cut ? [cut.id] : [])).filter(({ state }) => state === 'failed');
    for (const { id } of failed) await renditionAgain(trx, id);
    await askForJobsAnew(
      trx,
      'encode',
      failed.map(({ id }) => id),
    );
  });
}

const cannotAccept = () => new DeskError('not now', 'This cannot be accepted. Look again at what it asks for.');

/** Agrees to what is asked in every match that waits for a person. */
async function agreeToMatches({ id: dropId, siteVideoId }: Drop): Promise<void> {
  const matches = (await matchesOf(database(), [dropId])).filter(
    (match) => match.siteVideoId === siteVideoId && needsPerson(match),
  );
  if (matches.length === 0) throw cannotAccept();
  return settleMatches(dropId, { ways: matches.map(({ id }) => ({ match: id, way: 'agree' })) });
}

async function accept(drop: Drop, channel: Channel, { profile }: SiteAdapter): Promise<void> {
  const { snag } = drop;
  // Once it is live, it can only be a match: what somebody changed there is left as it is in its own place.
  if (drop.state === 'live') return agreeToMatches(drop);
  if (!mayAccept(snag)) throw cannotAccept();
  if (snag?.kind === 'rights') return agreeToMatches(drop);
  const record = await recordOf(database(), drop.videoId);
  const meant = meantWords(record, channel, drop, profile);
  return acceptAs(drop, meant, profile, 'Accepted as the site shows it', (trx) => leaveAsShown(trx, drop, meant.parts));
}

/**
 * Has a drop with a difference go on as its site shows it. Where more people see it by that, it opens by a word, with the seconds
 * to stop it.
 * @param note writes down what counts as meant from now on: nobody has changed it there since
 */
export async function acceptAs(
  drop: Drop,
  meant: MeantWords,
  { opensItself }: SiteProfile,
  says: string,
  note: (trx: Database) => Promise<void>,
): Promise<void> {
  const goesOn = goesToEnd(meant, drop);
  const isHeldFirst = !goesOn || (opensToMore(meant, drop) && !opensItself);
  await makeMove(drop, isHeldFirst ? 'acceptAndHold' : 'acceptAndOpen', says, {}, note);
  if (goesOn && isHeldFirst) await sayThatItOpens(drop, meant.end);
}

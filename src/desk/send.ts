import { object, string } from 'yup';
import { type DropState, type MoveName, MoveRefused, mayMove } from '@/core/drop';
import { allChannels, channelById } from '@/store/channels';
import { ClaimLost } from '@/store/claims';
import { type Database, database } from '@/store/database';
import { type Drop, type DropFields, dropById, dropsOf, hastenDrops, moveDrop } from '@/store/drops';
import { announce } from '@/store/feed';
import { DeskError, found } from './desk-error';
import { goesOnWith, sendsWith } from './layers';
import { log } from './log';
import { meantWords } from './meant';
import { missingAt, profileAt, recordOf } from './record';
import { sessionFor, site } from './session';

/** What became of sending a video: the channels that it went to, and those that it is not ready for. */
export interface Sent {
  sent: string[];
  notReady: { channel: string; missing: string[] }[];
}

/** Fields of a drop that starts from the beginning at the site. */
export const ANEW: DropFields = {
  siteVideoId: undefined,
  link: undefined,
  carry: undefined,
  sentWords: undefined,
  bytesSent: 0,
  liveAt: undefined,
  openAsked: false,
};

/**
 * Sends a video to every ticked channel that it is ready for and has not gone to yet. What is sent already is left alone,
 * so sending twice sends once.
 */
export async function sendVideo(videoId: string): Promise<Sent> {
  const db = database();
  const record = await recordOf(db, videoId);
  const drops = (await dropsOf(db, [videoId])).filter((drop) => mayMove('send', drop.state));
  const result: Sent = { sent: [], notReady: [] };
  for (const drop of drops) {
    const channel = found(await channelById(db, drop.channelId), 'channel');
    const profile = profileAt(site(channel.site).profile, channel);
    const missing = missingAt(record, channel, drop, profile).map((each) => each.what);
    if (channel.accountState !== 'connected' || !channel.granted) missing.push('The channel is not connected');
    if (missing.length > 0) {
      result.notReady.push({ channel: channel.name, missing });
      continue;
    }
    const fields = {
      ...ANEW,
      sentAt: new Date(),
      sentWith: sendsWith(record.layers, record.video, channel, drop),
      round: drop.state === 'removed' ? drop.round + 1 : drop.round,
    };
    await makeMove(db, drop, 'send', `Sent to ${channel.name}`, fields);
    result.sent.push(channel.name);
    log.info({ drop: drop.id, video: videoId, channel: channel.id }, 'drop sent');
  }
  return result;
}

async function makeMove(
  db: Database,
  drop: Drop,
  move: MoveName,
  says: string,
  fields: DropFields = {},
): Promise<void> {
  try {
    await moveDrop(db, drop, move, says, fields);
  } catch (error) {
    if (error instanceof MoveRefused || error instanceof ClaimLost) {
      throw new DeskError('not now', 'The drop has moved on meanwhile. Look again at where it stands.');
    }
    throw error;
  }
  await announce(db, 'video', drop.videoId);
}

/** What a person may do with a drop that is under way. */
export const DROP_ACTIONS = ['open', 'try again', 'accept', 'revise', 'take over', 'remove'] as const;
export type DropAction = (typeof DROP_ACTIONS)[number];

const MOVES_OF: Record<DropAction, readonly MoveName[]> = {
  open: ['open'],
  'try again': ['tryAgain', 'sendAnew'],
  accept: ['acceptCheck', 'acceptAndHold', 'acceptAndOpen'],
  revise: ['revise'],
  'take over': ['revise'],
  remove: ['remove'],
};

/** What a person may do with a drop now. */
export function actionsFor(drop: Pick<Drop, 'state' | 'snag'>, removes: boolean): DropAction[] {
  return DROP_ACTIONS.filter((action) => {
    if (action === 'remove' && !removes) return false;
    // Only a check's finding and a difference are a matter of opinion; the rest has to be mended.
    if (action === 'accept' && drop.snag?.kind !== 'rights' && drop.snag?.kind !== 'difference') return false;
    return MOVES_OF[action].some((move) => mayMove(move, drop.state, drop.snag));
  });
}

const actionShape = object({ action: string().oneOf(DROP_ACTIONS).required() });

/** Does with a drop what a person has asked for. @throws DeskError where it may not follow now */
export async function actOnDrop(dropId: string, input: unknown): Promise<void> {
  const { action } = await actionShape.validate(input);
  const db = database();
  const drop = found(await dropById(db, dropId), 'drop');
  const channel = found(await channelById(db, drop.channelId), 'channel');
  const { profile } = site(channel.site);
  log.info({ drop: dropId, action }, 'asked of a drop');
  switch (action) {
    case 'open':
      return makeMove(db, drop, 'open', 'Opened to everyone by hand', { openAsked: true });
    case 'take over':
    case 'revise': {
      const record = await recordOf(db, drop.videoId);
      const asks = action === 'revise' ? goesOnWith : sendsWith;
      const sentWith = asks(record.layers, record.video, channel, drop);
      const now = { ...drop, sentWith };
      const missing = missingAt(record, channel, now, profileAt(profile, channel)).map((each) => each.what);
      if (missing.length > 0) {
        throw new DeskError('not now', `${channel.name} does not take it like this: ${missing.join('; ')}.`);
      }
      return makeMove(db, drop, 'revise', 'Changes sent to the site', { sentWith });
    }
    case 'remove':
      return makeMove(db, drop, 'remove', `Being removed from ${profile.name}`);
    case 'accept':
      return accept(db, drop);
    case 'try again':
      return tryAgain(db, drop);
  }
}

async function tryAgain(db: Database, drop: Drop): Promise<void> {
  // What the site has lost, or could not process, has to go up as a new video.
  const anew = drop.snag?.kind === 'missing' || drop.snag?.kind === 'processing';
  // What was turned down in review is handed in anew with the words as they are now.
  const fields: DropFields = drop.snag?.kind === 'review' ? { sentWords: undefined } : {};
  if (!anew || drop.snag?.at === 'removing') return makeMove(db, drop, 'tryAgain', 'Tried again by hand', fields);
  return makeMove(db, drop, 'sendAnew', 'Sent anew by hand', { ...ANEW, round: drop.round + 1 });
}

async function accept(db: Database, drop: Drop): Promise<void> {
  const channel = found(await channelById(db, drop.channelId), 'channel');
  if (drop.snag?.kind === 'rights' && drop.siteVideoId) {
    await site(channel.site).acceptCheck?.(sessionFor(channel.accountId), drop.siteVideoId);
    return makeMove(db, drop, 'acceptCheck', 'Agreed to what the rights owner asks');
  }
  const record = await recordOf(db, drop.videoId);
  const { opensAlone } = meantWords(record, channel, drop, site(channel.site).profile);
  const opens = drop.openAsked || opensAlone;
  return makeMove(db, drop, opens ? 'acceptAndOpen' : 'acceptAndHold', 'Accepted as the site shows it');
}

/** After an account has been connected again: drops that stood still for its permission go on where they stood. */
export async function goOnAfterPermission(accountId: string): Promise<void> {
  const db = database();
  const channels = (await allChannels(db)).filter((channel) => channel.accountId === accountId && channel.granted);
  const ids = channels.map((channel) => channel.id);
  const waiting: { id: string; state: DropState }[] = await db('drops')
    .select('id', 'state')
    .whereIn('channelId', ids)
    .andWhere({ state: 'snag' });
  for (const { id } of waiting) {
    const drop = await dropById(db, id);
    if (drop?.snag?.kind === 'permission')
      await makeMove(db, drop, 'tryAgain', 'Goes on: the account is connected again');
  }
  await hastenDrops(db, { channelIds: ids });
}

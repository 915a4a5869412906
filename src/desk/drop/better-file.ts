import { isWider, mayMove } from '@/core/drop';
import { type Session, type SiteAbilities, type SiteAdapter, SiteError } from '@/sites/contract';
import { database, transaction } from '@/store/database';
import { dropById, setDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import { partsOfBefore } from '@/store/drop/parts';
import type { DropFields } from '@/store/drop/rows';
import { type Drop, linksLeft, traceOf } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import type { Channel } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { sendsWith } from '../layers/layers';
import { askedForDrop } from '../site/asked-for-drop';
import { makeMove } from './make-move';
import { meantWords } from './meant';
import { missingAt } from './readiness';
import { profileAt, recordOf } from './record';
import { ANEW } from './send';

/**
 * Sends the file in use in the place of the one that is live. The live video stays as it is until the new one is checked;
 * then its file is swapped where the site can do that, or it is closed or removed, as asked.
 * @throws DeskError where the file is not ready for the channel
 */
export async function sendBetterFile(
  drop: Drop,
  channel: Channel,
  adapter: SiteAdapter,
  ends: 'close' | 'remove',
): Promise<void> {
  const fields = await inPlaceFields(drop, channel, adapter, ends);
  await makeMove(
    drop,
    'sendInPlace',
    `A better file goes to ${channel.name}; the video there stays until it is checked`,
    fields,
  );
}

/**
 * Fields of a live drop of which a new file goes up beside the video that is there, to take its place.
 * @throws DeskError where the file is not ready for the channel
 */
export async function inPlaceFields(
  drop: Drop,
  channel: Channel,
  { profile }: SiteAdapter,
  ends: 'close' | 'remove',
): Promise<DropFields> {
  const record = await recordOf(database(), drop.videoId);
  const sentWith = sendsWith(record.layers, record.video, channel, drop);
  const anew = { ...drop, sentWith, state: 'draft' as const };
  const [missing] = missingAt(record, channel, anew, profileAt(profile, channel));
  const { end } = meantWords(record, channel, anew, profileAt(profile, channel));
  if (missing) throw new DeskError('not now', `${channel.name} does not take the new file: ${missing.what}.`);
  if (!drop.siteVideoId || !drop.link) throw new DeskError('not now', 'There is no video there to take the place of.');
  const { siteVideoId, link, openedTo, renditionId, round, sentWith: before } = drop;
  const liveAt = drop.liveAt?.toISOString();
  const former = { siteVideoId, link, openedTo, renditionId, round, sentWith: before, liveAt };
  return {
    ...ANEW,
    former: { ...former, ends: profile.abilities.swapsFiles ? 'swap' : ends },
    round: drop.round + 1,
    sentWith,
    // What is live needs no other word, and no other time; more people see it by a word alone.
    openAsked: !isWider(end, openedTo ?? 'private'),
  };
}

/** Whether a new file of a held drop can be put behind the link of the one there. A site that was told a time would open that one. */
export const goesBehindLink = (
  {
    snag,
    siteVideoId,
    link,
    former,
    siteOpensAt,
  }: Pick<Drop, 'snag' | 'siteVideoId' | 'link' | 'former' | 'siteOpensAt'>,
  { swapsFiles }: Pick<SiteAbilities, 'swapsFiles'>,
): boolean =>
  swapsFiles === true &&
  snag?.kind === 'file' &&
  snag.at === 'held' &&
  !!siteVideoId &&
  !!link &&
  !former &&
  !siteOpensAt;

/**
 * Fields of a held drop whose file is replaced behind its link: the new one goes up beside it, is checked, and takes its place
 * there before the drop is held again.
 * @throws DeskError where the file is not ready for the channel
 */
export async function behindLinkFields(drop: Drop, channel: Channel, adapter: SiteAdapter): Promise<DropFields> {
  return { ...(await inPlaceFields(drop, channel, adapter, 'close')), openAsked: false };
}

/** Gives a better file up that is on its way: the live video stays. */
export async function keepFormer(drop: Drop): Promise<void> {
  const { former } = drop;
  if (!former || !mayMove('keepFormer', drop.state, drop.snag)) {
    throw new DeskError('not now', 'It is too late: the new file has taken its place.');
  }
  const { ends: _, round: before, liveAt, openedTo, ...back } = former;
  const round = drop.round + 1;
  const fields = {
    ...ANEW,
    ...back,
    openedTo,
    confirmedTo: openedTo,
    formerLinks: linksLeft(drop)?.filter((link) => link !== former.link),
    round,
    leftBehind: [...(drop.leftBehind ?? []), ...traceOf(drop)],
    liveAt: liveAt === undefined ? undefined : new Date(liveAt),
  };
  const says = 'The video there stays as it is; the better file is given up';
  await makeMove(drop, 'keepFormer', says, fields, (trx) => partsOfBefore(trx, drop.id, before, round));
}

/** Takes the live video from everybody's sight at once, while a better file is on its way. */
export async function closeFormer(drop: Drop, adapter: SiteAdapter, accountId: string): Promise<void> {
  const { former } = drop;
  if (!former) return;
  const closedThere = async (session: Session) => {
    await adapter.showTo(session, former.siteVideoId, 'private');
    const { privacy } = (await adapter.look(session, former.siteVideoId)).status;
    if (privacy !== 'private') throw new SiteError('busy', 'it still shows it');
  };
  try {
    await askedForDrop(drop.id, accountId, 'close it', 'urgent', closedThere);
  } catch (error) {
    if (!(error instanceof SiteError)) throw error;
    throw new DeskError('site', `${adapter.profile.name} did not close it: ${error.message}. Try again.`);
  }
  await transaction(async (trx) => {
    const now = found(await dropById(trx, drop.id, true), 'drop');
    if (now.former) await setDrop(trx, drop.id, { former: { ...now.former, openedTo: 'private' } });
    await addDropEvent(trx, drop.id, 'close', 'Closed: private now');
    await announce(trx, 'video', drop.videoId);
  });
}

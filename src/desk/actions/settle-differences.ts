import { object, string } from 'yup';
import { isWider, mayMove } from '@/core/drop';
import {
  givenAsShown,
  givenParts,
  isSame,
  mayTakeOver,
  onlyParts,
  PARTS,
  type PartName,
  type PartsShown,
  type ShownOtherwise,
  takenOver,
  undecidedParts,
} from '@/core/parts';
import { AGREED_TO_NOTHING, agreedByChanges } from '@/core/release';
import { databaseTime } from '@/store/clock';
import { type Database, database, transaction } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import {
  atSite,
  forgetGiven,
  noteGivenParts,
  noteLeft,
  noteShownAsMeant,
  partsOfDrop,
  shownOtherwise,
} from '@/store/drop/parts';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { type Channel, channelById } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { leaveAsShown } from '../differences/leave-as-shown';
import { READS_IT } from '../differences/read-again';
import { readFrom } from '../differences/read-now';
import { giveLive } from '../drop/give-live';
import { changedMeanwhile, makeMove } from '../drop/make-move';
import { meantWords } from '../drop/meant';
import { profileAt, recordOf } from '../drop/record';
import { askedForDrop } from '../site/asked-for-drop';
import { site } from '../site/session';
import { editOnChannel } from '../video/edit-video';
import { acceptAs, actOnDrop } from './act-on-drop';

/** The ways on from what a site shows otherwise than it was meant. */
export const DIFFERENCE_WAYS = ['put right', 'take over', 'leave'] as const;
export type DifferenceWay = (typeof DIFFERENCE_WAYS)[number];

const wayShape = object({ way: string().oneOf(DIFFERENCE_WAYS).required() }).noUnknown();

/**
 * Goes a way on from what the site of a drop shows otherwise than it was meant: it is put right there, the record takes it
 * over for this channel, or it stays as it is.
 * @throws DeskError where there is nothing to decide on any more, or the site does not answer
 */
export async function settleDifferences(dropId: string, input: unknown): Promise<void> {
  const { way } = await wayShape.validate(input, { stripUnknown: false });
  const drop = found(await dropById(database(), dropId), 'drop');
  const channel = found(await channelById(database(), drop.channelId), 'channel');
  if (drop.snag?.kind === 'difference') return settleSnag(drop, channel, way);
  if (drop.state !== 'live') throw changedMeanwhile();
  const open = undecidedParts(shownOtherwise(await partsOfDrop(database(), drop)));
  if (open.length === 0) throw changedMeanwhile();
  return settleLive(drop, channel, way);
}

/** Before it is live: the drop stands still until somebody has decided. */
async function settleSnag(drop: Drop, channel: Channel, way: DifferenceWay): Promise<void> {
  if (way === 'put right') return actOnDrop(drop.id, { action: 'try again' });
  if (way === 'leave') return actOnDrop(drop.id, { action: 'accept' });
  const parts = drop.snag?.parts ?? [];
  await takeOver(drop, channel, parts);
  const { profile, record } = await atSiteOf(drop, channel);
  const meant = meantWords(record, channel, { ...drop, ...(await ownNow(drop)) }, profile);
  // What was changed here since it was given is still to be sent: only these parts are as they are wanted. What could not be taken
  // over to the letter is not told again as somebody's change.
  const note = (trx: Database) => leaveAsShown(trx, drop, onlyParts(meant.parts, parts));
  return acceptAs(drop, meant, profile, `Taken over here as ${profile.name} shows it`, note);
}

/** Once it is live, nothing waits for it. */
async function settleLive(drop: Drop, channel: Channel, way: DifferenceWay): Promise<void> {
  const shown = shownOtherwise(await partsOfDrop(database(), drop));
  const open = undecidedParts(shown);
  const { name } = site(channel.site).profile;
  const says = open.map((part) => PARTS[part].label).join(', ');
  if (way === 'put right') {
    if (open.some((part) => part === 'video' || part === 'file') || !mayMove('revise', drop.state)) {
      throw new DeskError('not now', 'This cannot be put right by sending the words again. Send the video again.');
    }
    const put = `To be put right on ${name}: ${says}`;
    const forget = async (trx: Database) => {
      await stillShows(trx, drop, shown);
      // These parts alone go out again: what was left as it is there stays.
      await forgetGiven(trx, drop, open);
      for (const part of open) await noteShownAsMeant(trx, drop, part);
    };
    // Who sees it is seen to before anything else.
    if (open.includes('privacy')) {
      const fields = { readAt: undefined, ...(await openedOnceMore(drop, channel, shown)) };
      return makeMove(drop, 'revise', put, fields, forget);
    }
    return giveLive(drop, put, undefined, forget);
  }
  if (way === 'take over') {
    const reading = await takeOver(drop, channel, open);
    return noteDecided(drop, shown, `Taken over here as ${name} shows it`, async (trx) => {
      // What cannot be taken over to the letter is a change that is still to be sent.
      const given = givenParts(atSite(await partsOfDrop(trx, drop)));
      await noteGivenParts(trx, drop, givenAsShown(open, reading, given));
    });
  }
  return noteDecided(drop, shown, `Left as ${name} shows it: ${says}`, (trx) => noteLeft(trx, drop));
}

/** Fields of a live drop that its site shows to fewer people than it was: opened there again, it has the seconds of a word first. */
async function openedOnceMore(drop: Drop, channel: Channel, { privacy }: ShownOtherwise): Promise<DropFields> {
  const to = privacy?.shown as PartsShown['privacy'] | null;
  if (!to || !isWider(drop.confirmedTo ?? 'private', to)) return {};
  const { profile, record } = await atSiteOf(drop, channel);
  const meant = meantWords(record, channel, drop, profile);
  return { confirmedTo: to, agreed: agreedByChanges(meant, AGREED_TO_NOTHING, await databaseTime(database())) };
}

/** @throws DeskError where the site was seen to show something else meanwhile */
async function stillShows(trx: Database, drop: Drop, shown: ShownOtherwise): Promise<void> {
  const now = await dropById(trx, drop.id, true);
  const same = now && isSame(shownOtherwise(await partsOfDrop(trx, now)), shown);
  if (now?.state !== 'live' || !same) throw changedMeanwhile();
}

async function noteDecided(
  drop: Drop,
  shown: ShownOtherwise,
  says: string,
  note: (trx: Database) => Promise<void>,
): Promise<void> {
  await transaction(async (trx) => {
    await stillShows(trx, drop, shown);
    await note(trx);
    await addDropEvent(trx, drop.id, 'shows', says);
    await announce(trx, 'video', drop.videoId);
  });
}

async function atSiteOf(drop: Drop, channel: Channel) {
  const profile = profileAt(site(channel.site).profile, channel);
  return { profile, record: await recordOf(database(), drop.videoId) };
}

/** What is set for the channel alone now. */
async function ownNow(drop: Drop): Promise<Pick<Drop, 'own' | 'chosenPlaylists'>> {
  const { own, chosenPlaylists } = found(await dropById(database(), drop.id), 'drop');
  return { own, chosenPlaylists };
}

/** Sets for the channel alone what its site shows, which is returned; it can be undone like anything else. */
async function takeOver(drop: Drop, channel: Channel, parts: readonly PartName[]): Promise<PartsShown> {
  const { profile, record } = await atSiteOf(drop, channel);
  if (!mayTakeOver(parts, profile)) {
    const not = parts.filter((part) => !mayTakeOver([part, 'text'], profile)).map((part) => PARTS[part].label);
    throw new DeskError('not now', `This cannot be taken over from a site: ${not.join(', ')}.`);
  }
  const reading = await shownBy(drop, channel);
  const textBecomes = (text: string) =>
    meantWords(record, channel, { ...drop, own: { ...drop.own, text } }, profile).fitted.words.text;
  const { set = {}, playlists } = takenOver(parts, { shown: reading, textBecomes });
  await editOnChannel(drop.videoId, { channelId: channel.id, set, ...(playlists && { playlists }) });
  return reading;
}

/** What the site shows at this moment. @throws DeskError where it does not answer */
const shownBy = (drop: Drop, channel: Channel): Promise<PartsShown> =>
  readFrom(channel.site, () =>
    askedForDrop(
      drop.id,
      channel.accountId,
      READS_IT,
      'urgent',
      async (session) => (await site(channel.site).look(session, drop.siteVideoId ?? '')).shown,
    ),
  );

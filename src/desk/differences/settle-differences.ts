import { object, string } from 'yup';
import { type Difference, givenAsShown, givenFrom, mayMove, mayTakeOver, undecided } from '@/core/drop';
import type { SiteReading } from '@/sites/contract';
import { type Channel, channelById } from '@/store/channels';
import { database, transaction } from '@/store/database';
import { addDropEvent, type Drop, dropById, setDrop } from '@/store/drops';
import { announce } from '@/store/feed';
import { givenTo } from '@/store/given-words';
import { DeskError, found } from '../desk-error';
import { actOnDrop } from '../drop/act-on-drop';
import { changedMeanwhile, makeMove } from '../drop/make-move';
import { goesToEnd, type MeantWords, meantWords } from '../drop/meant';
import { profileAt, recordOf } from '../drop/record';
import { askedForDrop } from '../site/asked-for-drop';
import { site } from '../site/session';
import { editOnChannel } from '../video/edit-video';
import { READS_IT } from './read-again';
import { readFrom } from './read-now';
import { textShowing } from './text-showing';

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
  if (drop.state === 'live' && undecided(drop.shows).length > 0) return settleLive(drop, channel, way);
  throw changedMeanwhile();
}

/** Before it is live: the drop stands still until somebody has decided. */
async function settleSnag(drop: Drop, channel: Channel, way: DifferenceWay): Promise<void> {
  if (way === 'put right') return actOnDrop(drop.id, { action: 'try again' });
  if (way === 'leave') return actOnDrop(drop.id, { action: 'accept' });
  await takeOver(drop, channel, drop.snag?.differences ?? []);
  const { adapter, record } = await atSite(drop, channel);
  const meant = meantWords(record, channel, { ...drop, ...(await ownNow(drop)) }, adapter.profile);
  const move = goesToEnd(meant, drop) ? 'acceptAndOpen' : 'acceptAndHold';
  // What could not be taken over to the letter is not told again as somebody's change.
  const shows = (drop.snag?.differences ?? []).map((each) => ({ ...each, left: true as const }));
  await makeMove(drop, move, `Taken over here as ${adapter.profile.name} shows it`, {
    sentWords: await takenInto(drop, meant, drop.snag?.differences ?? []),
    shows,
  });
}

/** Once it is live, nothing waits for it. */
async function settleLive(drop: Drop, channel: Channel, way: DifferenceWay): Promise<void> {
  const open = undecided(drop.shows);
  const { name } = site(channel.site).profile;
  const left = (drop.shows ?? []).filter((each) => each.left);
  const kept = left.length > 0 ? left : undefined;
  if (way === 'put right') {
    if (open.some(({ field }) => field === 'video' || field === 'file') || !mayMove('revise', drop.state)) {
      throw new DeskError('not now', 'This cannot be put right by sending the words again. Send the video again.');
    }
    // These fields alone go out again: what was left as it is there stays.
    const sentWords = asShown(drop, open, await shownBy(drop, channel));
    return makeMove(drop, 'revise', `To be put right on ${name}: ${open.map(({ field }) => field).join(', ')}`, {
      ...{ sentWords, shows: kept, readAt: undefined },
    });
  }
  if (way === 'take over') {
    const reading = await takeOver(drop, channel, open);
    // What cannot be taken over to the letter is a change that is still to be sent.
    const sentWords = asShown(drop, open, reading);
    return noteDecided(drop, `Taken over here as ${name} shows it`, { sentWords, shows: kept });
  }
  const shows = (drop.shows ?? []).map((each) => ({ ...each, left: true as const }));
  return noteDecided(drop, `Left as ${name} shows it: ${open.map(({ field }) => field).join(', ')}`, { shows });
}

/**
 * What the site has now, as words that it was given: those of the fields that were taken over, and for all else what it really
 * was given, so that what was changed here since is still to be sent.
 */
async function takenInto(drop: Drop, meant: MeantWords, open: readonly Difference[]): Promise<string> {
  const given = drop.sentWords ?? (await givenTo(database(), drop.id))[0]?.words;
  const [was, is] = [given, meant.asText].map(givenFrom);
  if (!was || !is) return meant.asText;
  const fields = new Set(open.map(({ field }) => field));
  const words = {
    ...was.words,
    ...(fields.has('title') && { title: is.words.title }),
    // Chapters that stand in the text go along with it.
    ...(fields.has('description') && {
      text: is.words.text,
      chapters: is.words.chapters,
      chapterTimes: is.words.chapterTimes,
    }),
    ...(fields.has('tags') && { tags: is.words.tags }),
  };
  return JSON.stringify({ ...was, words, ...(fields.has('playlist') && { playlists: is.playlists }) });
}

async function noteDecided(
  drop: Drop,
  says: string,
  fields: Pick<Partial<Drop>, 'shows' | 'sentWords'>,
): Promise<void> {
  await transaction(async (trx) => {
    const now = await dropById(trx, drop.id, true);
    if (now?.state !== 'live' || JSON.stringify(now.shows) !== JSON.stringify(drop.shows)) throw changedMeanwhile();
    await setDrop(trx, drop.id, fields);
    await addDropEvent(trx, drop.id, 'shows', says);
    await announce(trx, 'video', drop.videoId);
  });
}

async function atSite(drop: Drop, channel: Channel) {
  const adapter = site(channel.site);
  return {
    adapter: { ...adapter, profile: profileAt(adapter.profile, channel) },
    record: await recordOf(database(), drop.videoId),
  };
}

/** What is set for the channel alone now. */
async function ownNow(drop: Drop): Promise<Pick<Drop, 'own' | 'chosenPlaylists'>> {
  const { own, chosenPlaylists } = found(await dropById(database(), drop.id), 'drop');
  return { own, chosenPlaylists };
}

/** Sets for the channel alone what its site shows, which can be undone like anything else. */
async function takeOver(
  drop: Drop,
  channel: Channel,
  open: readonly { field: string; meant: string; shown: string }[],
): Promise<SiteReading> {
  if (!mayTakeOver(open, site(channel.site).profile.chapters?.way === 'description')) {
    throw new DeskError('not now', 'Only title, text, tags and playlists can be taken over from a site.');
  }
  const { adapter, record } = await atSite(drop, channel);
  const reading = await shownBy(drop, channel);
  const fields = new Set(open.map(({ field }) => field));
  const own = (set: Partial<Drop['own']>) =>
    meantWords(record, channel, { ...drop, own: { ...drop.own, ...set } }, adapter.profile).fitted.words;
  const set = {
    ...(fields.has('title') && { title: reading.title ?? '' }),
    ...(fields.has('description') && {
      text: textShowing(reading.text ?? '', reading.chapters ?? [], (text) => own({ text }).text),
    }),
    ...(fields.has('tags') && { tags: { way: 'replace' as const, items: reading.tags ?? [] } }),
  };
  const playlists = fields.has('playlist') ? { playlists: reading.groups ?? [] } : {};
  await editOnChannel(drop.videoId, { channelId: channel.id, set, ...playlists });
  return reading;
}

/** What the site shows at this moment. @throws DeskError where it does not answer */
const shownBy = (drop: Drop, channel: Channel): Promise<SiteReading> =>
  readFrom(channel.site, () =>
    askedForDrop(drop.id, channel.accountId, READS_IT, 'urgent', (session) =>
      site(channel.site).readBack(session, drop.siteVideoId ?? ''),
    ),
  );

/** What the site was given, with what it has in the fields that are open; undefined where it is not known. */
function asShown(drop: Drop, open: readonly Difference[], reading: SiteReading): string | undefined {
  const given = givenFrom(drop.sentWords);
  return given && JSON.stringify(givenAsShown(given, new Set(open.map(({ field }) => field)), reading));
}

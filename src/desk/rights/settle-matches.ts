import { array, object, string } from 'yup';
import { mayMove } from '@/core/drop';
import { type MendsOfCut, momentInCut, type Remedies } from '@/core/renditions';
import { askWords, mayAgree, mayDispute, needsPerson } from '@/core/rights';
import { ceil, compare, type Fraction, floor, fraction, over, times } from '@/core/time';
import { type Session, type SiteAdapter, SiteError } from '@/sites/contract';
import { database, transaction } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { type KeptMatch, matchesOf } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import { soundsById } from '@/store/record/sounds';
import { videoById } from '@/store/record/videos';
import { type Channel, channelById } from '@/store/site/channels';
import { change } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { inPlaceFields } from '../drop/better-file';
import { changedMeanwhile, makeMove } from '../drop/make-move';
import { recordOf, type VideoRecord } from '../drop/record';
import { sentAnewFields } from '../drop/send-anew';
import { idShape } from '../id-shape';
import { remediesAt, sendsWith } from '../layers/layers';
import { askedForDrop } from '../site/asked-for-drop';
import { site } from '../site/session';
import { hearOfMatches } from './hear-of-matches';

/** The ways on from a rights match that Kettle Drop goes; another file is one more, by adding it. */
export const MATCH_WAYS = ['agree', 'dispute', 'silence', 'swap', 'leave out'] as const;
export type MatchWay = (typeof MATCH_WAYS)[number];

const wayShape = object({
  match: string().max(200).required(),
  way: string().oneOf(MATCH_WAYS).required(),
  /** Of a dispute: why the match is wrong. */
  text: string().trim().max(2000, 'The text has at most 2,000 characters.'),
  /** Of a swap: the sound that is heard instead. */
  sound: idShape(),
}).noUnknown();

const settleShape = object({
  ways: array(wayShape.required()).min(1, 'Choose a way on first.').max(50).required(),
}).noUnknown();

type Chosen = { match: KeptMatch; way: MatchWay; text: string; sound: string | undefined };

const LEAST_TEXT = 20;

/**
 * Goes a way on from each rights match that is named. What changes the file sends it anew, as a new video there; the matches
 * that are left are then found again.
 * @throws DeskError where a way is closed, or the site refuses
 */
export async function settleMatches(dropId: string, input: unknown): Promise<void> {
  const { ways } = await settleShape.validate(input, { stripUnknown: false });
  const db = database();
  const drop = found(await dropById(db, dropId), 'drop');
  const channel = found(await channelById(db, drop.channelId), 'channel');
  const adapter = site(channel.site);
  const kept = (await matchesOf(db, [dropId])).filter(({ siteVideoId }) => siteVideoId === drop.siteVideoId);
  const chosen = ways.map(({ match: id, way, text = '', sound }): Chosen => {
    const match = kept.find((each) => each.id === id);
    if (!match) throw new DeskError('not now', 'This match is not there any more. Look at it again.');
    mayGo(match, way, text, sound, adapter);
    return { match, way, text, sound };
  });
  const inFile = chosen.filter(({ way }) => way === 'silence' || way === 'swap' || way === 'leave out');
  if (inFile.length > 0) return mendFile(drop, channel, adapter, inFile);
  await tellSite(drop, channel, adapter, chosen);
  await goOn(drop);
}

function mayGo(match: KeptMatch, way: MatchWay, text: string, sound: string | undefined, adapter: SiteAdapter): void {
  const name = adapter.profile.name;
  if (way === 'agree' && !mayAgree(match)) {
    throw new DeskError('not now', `${match.owner} ${askWords(match)}. That leaves nothing to agree to.`);
  }
  if (way === 'dispute' && !adapter.profile.abilities.disputes) {
    throw new DeskError('not now', `${name} takes no disputes here. Write to them on their own page.`);
  }
  if (way === 'dispute' && !mayDispute(match)) {
    throw new DeskError('not now', 'A match can be disputed once, before it is agreed to.');
  }
  if (way === 'dispute' && text.length < LEAST_TEXT) {
    throw new DeskError('not taken', `Say in at least ${LEAST_TEXT} characters why the match is wrong.`);
  }
  if (way === 'swap' && !sound) throw new DeskError('not taken', 'Add the sound that is to be heard instead.');
}

/** Agrees and disputes at the site, then keeps what it says. */
async function tellSite(drop: Drop, channel: Channel, adapter: SiteAdapter, chosen: readonly Chosen[]): Promise<void> {
  const there = drop.siteVideoId ?? '';
  const tell = async (session: Session) => {
    const hear = async () => {
      const { matches } = (await adapter.look(session, there)).status;
      await transaction((trx) => hearOfMatches(trx, drop, matches));
    };
    try {
      for (const { match, way, text } of chosen) {
        if (way === 'agree') await adapter.acceptMatch?.(session, there, match.id);
        else await adapter.disputeMatch?.(session, there, match.id, text);
      }
      await hear();
    } catch (error) {
      // Of several some may have been taken.
      await hear().catch(() => undefined);
      if (!(error instanceof SiteError)) throw error;
      throw new DeskError('site', `${adapter.profile.name} did not take it: ${error.message}. Try again.`);
    }
  };
  await askedForDrop(drop.id, channel.accountId, 'answer a rights match', 'urgent', tell);
}

/** A drop that stood still for its matches goes on once none asks for a person. */
async function goOn(drop: Drop): Promise<void> {
  const left = (await matchesOf(database(), [drop.id])).filter(({ siteVideoId }) => siteVideoId === drop.siteVideoId);
  if (drop.snag?.kind !== 'rights' || left.some(needsPerson)) return;
  await makeMove(drop, 'tryAgain', 'Goes on: every rights match has its answer');
}

/**
 * Keeps on the channel what is done to the file, which can be undone, and sends the video there anew; one that is live stays
 * until the new one is checked.
 */
async function mendFile(drop: Drop, channel: Channel, adapter: SiteAdapter, chosen: readonly Chosen[]): Promise<void> {
  const isLive = mayMove('sendInPlace', drop.state);
  if (!isLive && (drop.snag?.kind !== 'rights' || !mayMove('sendAnew', drop.state))) {
    throw new DeskError('not now', 'The file can be changed while the drop stands still for the match, or is live.');
  }
  const record = await recordOf(database(), drop.videoId);
  const mends = await mendsWith(record, drop, chosen);
  const mended = { ...drop, own: { ...drop.own, mends } };
  const fields = isLive
    ? await inPlaceFields(mended, channel, adapter, 'close')
    : { ...sentAnewFields(drop), sentWith: sendsWith(record.layers, record.video, channel, mended) };
  const says = `Sent again: ${chosen.map(mendWords).join('; ')}`;
  await makeMove(drop, isLive ? 'sendInPlace' : 'sendAnew', says, fields, async (trx) => {
    await videoById(trx, drop.videoId, true);
    const { own } = found(await dropById(trx, drop.id, true), 'drop');
    // What else was set for the channel meanwhile stays; what was done to the file meanwhile is looked at first.
    if (JSON.stringify(own.mends) !== JSON.stringify(drop.own.mends)) throw changedMeanwhile();
    await change(trx, drop.videoId, 'onChannel', { id: channel.id, own }, { id: channel.id, own: { ...own, mends } });
  });
}

const MEND_WORDS = { silence: 'is silent', swap: 'has other sound', 'leave out': 'is left out' } as const;

const mendWords = ({ match, way }: Chosen): string =>
  `the part with “${match.work}” ${MEND_WORDS[way as keyof typeof MEND_WORDS]}`;

/** What is done to the file in use on this channel, with what is chosen now. */
async function mendsWith(record: VideoRecord, drop: Drop, chosen: readonly Chosen[]): Promise<MendsOfCut> {
  const { cut, video } = record;
  if (!cut?.facts) throw new DeskError('not now', 'The file is not here any more. Add it again.');
  const { facts } = cut;
  const sent: Remedies = remediesAt(video, drop, cut.id);
  const before = drop.own.mends?.cutId === cut.id ? drop.own.mends : { cutId: cut.id };
  const mends: MendsOfCut = { ...before };
  const sounds = new Set(
    (
      await soundsById(
        database(),
        chosen.flatMap(({ sound }) => sound ?? []),
      )
    ).map(({ id }) => id),
  );
  for (const { match, way, sound } of chosen) {
    // The site counts in the time of the file that it has.
    const span = { from: momentInCut(match.from, sent, facts), to: momentInCut(match.to, sent, facts) };
    if (compare(span.to, span.from) <= 0) throw new DeskError('not now', 'The match lies outside the file in use.');
    if (way === 'silence') mends.silence = [...(mends.silence ?? []), span];
    if (way === 'leave out') mends.without = [...(mends.without ?? []), onFrames(span, facts.video.rate)];
    if (way === 'swap') {
      if (!sound || !sounds.has(sound)) throw new DeskError('not taken', 'The other sound is not here. Add it again.');
      mends.swaps = [...(mends.swaps ?? []), { ...span, sound }];
    }
  }
  return mends;
}

/** The whole frames that a span touches, so that sound and picture lose just as much. */
function onFrames({ from, to }: { from: Fraction; to: Fraction }, rate: Fraction) {
  const frame = (count: number) => over(fraction(count), rate);
  return { from: frame(floor(times(from, rate))), to: frame(ceil(times(to, rate))) };
}

import type { Actor } from '@/core/actor';
import type { LayerValues } from '@/core/defaults';
import type { Privacy } from '@/core/delivery';
import {
  type AskedOfSight,
  type CarriedState,
  type DropState,
  type MoveName,
  type OwnWords,
  type PutOff,
  type SiteVersion,
  type Snag,
  stateAfter,
} from '@/core/drop';
import type { Framings } from '@/core/framing';
import type { FileSet, MendsOfCut, RemediesOfCut } from '@/core/renditions';
import type { Shelf } from '@/core/words';
import { actorOf, type ByRow, byNow } from './actor';
import { type RestingChannel, takeTrial } from './circuits';
import { type Claim, ClaimLost, claimed, claimRows, dueRows } from './claims';
import { inSeconds, now } from './clock';
import { type Database, fromJson, toJson } from './database';
import { giveUpEarlyUploads } from './early-uploads';
import { newId } from './ids';

/** How far the site is with a drop, in its own words, `fraction` between 0 and 1 where it tells. */
export interface DropProgress {
  says: string;
  fraction?: number;
  bytesPerSecond?: number;
  secondsLeft?: number;
}

/** A live video that stays at the site until one with a better file takes its place. */
export interface FormerVideo {
  siteVideoId: string;
  link: string;
  openedTo: Privacy | undefined;
  renditionId: string | undefined;
  /** Of the parts that it was given (drop_parts). */
  round: number;
  sentWith: SentWith | undefined;
  /** ISO 8601 in UTC. */
  liveAt: string | undefined;
  /** What becomes of it then: its file is swapped, so that the link stays; or it is closed, or removed. */
  ends: 'swap' | 'close' | 'remove';
}

/** How fast the line was at a moment; times are ISO 8601 in UTC. */
export interface LineSpeed {
  at: string;
  bytesPerSecond: number;
}

/** What is set for one channel alone. */
export interface OwnOnChannel extends LayerValues, OwnWords {
  /** The record's text that the own text was written over, to tell whether that has changed since. */
  textOver?: string;
  /** What is done to parts of the file for this channel alone. */
  mends?: MendsOfCut;
}

/** The layers and links as they were when a drop was sent; later changes of them do not reach it. */
export interface SentWith {
  site: LayerValues;
  channel: LayerValues;
  series: LayerValues;
  seriesName: string;
  shelf: Shelf;
  /** The file settings that are in force by a set, as the set was. */
  fileSet?: FileSet;
  /** What was put right in the file. */
  remedies?: RemediesOfCut;
  /** What was done to parts of it for this channel alone. */
  mends?: MendsOfCut;
  /** Where its frame was. */
  framings?: Framings;
}

/** What a site was asked to make room with. */
export interface BegunWith {
  key: string;
  fileName: string;
  size: number;
}

/** One video on its way to one channel. */
export interface Drop {
  id: string;
  videoId: string;
  channelId: string;
  renditionId: string | undefined;
  state: DropState;
  snag: Snag | undefined;
  /** Why nothing moves at the moment, where the worker waits for something. */
  waiting: string | undefined;
  own: OwnOnChannel;
  /** Site ids of the playlists that were chosen for it; undefined takes those of the layers. */
  chosenPlaylists: string[] | undefined;
  /** Undefined until it is sent. */
  sentWith: SentWith | undefined;
  /** How often the video was sent to this channel anew, after it had been removed there. */
  round: number;
  /** What the site was asked to make room with, noted before it was asked. */
  begunWith: BegunWith | undefined;
  /**
   * Videos at the site that this drop no longer means, until they are removed there: their ids, or what the site was asked to
   * make room with where its answer had not come.
   */
  leftBehind: (string | BegunWith)[] | undefined;
  siteVideoId: string | undefined;
  link: string | undefined;
  /** What the adapter needs to go on with the bytes. */
  carry: Record<string, string> | undefined;
  progress: DropProgress | undefined;
  bytesSent: number;
  bytesTotal: number;
  /** Whether a person has asked for it to be opened. */
  openAsked: boolean;
  /** When that word takes effect. */
  wordAt: Date | undefined;
  /** When it opens, while it is held for its time. */
  opensAt: Date | undefined;
  /** The time at which the site was told to open it. */
  siteOpensAt: Date | undefined;
  /** The time that the site itself has said since. */
  confirmedOpensAt: Date | undefined;
  /** The release that it was let go for: with another, it is held again. */
  releasedFor: string | undefined;
  /** The widest that the site may be showing it to, as it was asked; undefined while it was never opened. */
  openedTo: Privacy | undefined;
  /** To whom the site itself has said that it shows it; undefined while it was never open. */
  confirmedTo: Privacy | undefined;
  /** What the site was asked that changes who sees it, until it has answered. */
  asking: AskedOfSight[] | undefined;
  /** Since when it is in this state. */
  stateSince: Date;
  /** Since when the site has put it off, again and again, and what kind of trouble that is. */
  putOffSince: Date | undefined;
  putOffBy: PutOff | undefined;
  attempts: number;
  sentAt: Date | undefined;
  liveAt: Date | undefined;
  /** When it opened to others than its owner; it stays where it is closed or removed since. */
  openedAt: Date | undefined;
  /** Versions of it that play at the site. */
  versions: SiteVersion[] | undefined;
  /** How fast the line was, over the time of the transfer. */
  speeds: LineSpeed[] | undefined;
  /** When it was read again, once it was live. */
  readAt: Date | undefined;
  former: FormerVideo | undefined;
  /** Links to videos that this one took the place of. */
  formerLinks: string[] | undefined;
  updatedAt: Date;
}

/** What of a drop may be at its site by now. */
export const traceOf = ({ siteVideoId, begunWith }: Pick<Drop, 'siteVideoId' | 'begunWith'>): (string | BegunWith)[] =>
  siteVideoId ? [siteVideoId] : begunWith ? [begunWith] : [];

/** What a site is asked to make room for a drop with: with the same, it makes room once. */
export const transferKey = ({ id, round }: Pick<Drop, 'id' | 'round'>): string => `${id}.${round}`;

/** One step in a drop's history; these are only ever added. */
export interface DropEvent {
  id: number;
  dropId: string;
  at: Date;
  kind: string;
  says: string;
  by: Actor;
}

const columns = [
  'id',
  'videoId',
  'channelId',
  'renditionId',
  'state',
  'snag',
  'waiting',
  'own',
  'chosenPlaylists',
  'sentWith',
  'round',
  'begunWith',
  'leftBehind',
  'siteVideoId',
  'link',
  'carry',
  'progress',
  'bytesSent',
  'bytesTotal',
  'openAsked',
  'wordAt',
  'opensAt',
  'siteOpensAt',
  'confirmedOpensAt',
  'releasedFor',
  'openedTo',
  'confirmedTo',
  'asking',
  'stateSince',
  'putOffSince',
  'putOffBy',
  'attempts',
  'sentAt',
  'liveAt',
  'openedAt',
  'versions',
  'speeds',
  'readAt',
  'former',
  'formerLinks',
  'updatedAt',
];

const JSON_FIELDS = [
  ...(['snag', 'own', 'chosenPlaylists', 'sentWith', 'carry', 'progress', 'begunWith', 'leftBehind'] as const),
  ...(['versions', 'speeds', 'former', 'formerLinks', 'asking'] as const),
] as const;

type Row = { [K in keyof Drop]: unknown } & Record<(typeof JSON_FIELDS)[number], string | null>;

function fromRow(row: Row): Drop {
  const values: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(row)) values[key] = value ?? undefined;
  return {
    ...values,
    snag: fromJson<Snag>(row.snag),
    own: fromJson<OwnOnChannel>(row.own) ?? {},
    chosenPlaylists: fromJson<string[]>(row.chosenPlaylists),
    sentWith: fromJson<SentWith>(row.sentWith),
    carry: fromJson<Record<string, string>>(row.carry),
    progress: fromJson<DropProgress>(row.progress),
    begunWith: fromJson<Drop['begunWith']>(row.begunWith),
    leftBehind: fromJson<Drop['leftBehind']>(row.leftBehind),
    versions: fromJson<SiteVersion[]>(row.versions),
    speeds: fromJson<LineSpeed[]>(row.speeds),
    former: fromJson<FormerVideo>(row.former),
    formerLinks: fromJson<string[]>(row.formerLinks),
    asking: fromJson<AskedOfSight[]>(row.asking),
    openAsked: row.openAsked === 1,
  } as Drop;
}

/** Ticks a channel for a video: a drop that has not been sent. Nothing happens where there is one already. */
export async function makeDrop(db: Database, videoId: string, channelId: string): Promise<void> {
  const at = now(db);
  await db('drops')
    .insert({
      id: newId(),
      videoId,
      channelId,
      state: 'draft',
      createdAt: at,
      updatedAt: at,
      stateSince: at,
      nextTryAt: at,
    })
    .onConflict(['videoId', 'channelId'])
    .ignore();
}

/** Takes a tick back; a drop that was sent stays. Whether one went is returned. */
export async function deleteDraft(trx: Database, videoId: string, channelId: string): Promise<boolean> {
  const row: { id: string } | undefined = await trx('drops').where({ videoId, channelId, state: 'draft' }).first('id');
  if (!row) return false;
  await giveUpEarlyUploads(trx, { dropId: row.id });
  return (await trx('drops').where({ id: row.id, state: 'draft' }).delete()) > 0;
}

export async function dropById(db: Database, id: string, lock = false): Promise<Drop | undefined> {
  const query = db('drops').where({ id }).first(columns);
  const row: Row | undefined = await (lock ? query.forUpdate() : query);
  return row && fromRow(row);
}

/** The drops of the videos named, in the order in which their channels were ticked. */
export async function dropsOf(db: Database, videoIds: readonly string[]): Promise<Drop[]> {
  const rows: Row[] = await db('drops')
    .select(columns)
    .whereIn('videoId', [...videoIds])
    .orderBy('id');
  return rows.map(fromRow);
}

/** The drops on these channels that stand still for a snag of one kind. */
export async function dropsWithSnag(db: Database, channelIds: readonly string[], kind: Snag['kind']): Promise<Drop[]> {
  const rows: Row[] = await db('drops')
    .select(columns)
    .where({ state: 'snag' })
    .whereIn('channelId', [...channelIds]);
  return rows.map(fromRow).filter(({ snag }) => snag?.kind === kind);
}

/** So many rows at a time are read, so that whatever else waits has its turn in between. */
const ROWS_AT_ONCE = 500;

/** Every drop that has not been sent, or was removed, some at a time. */
export async function* unsentDrops(db: Database): AsyncGenerator<Pick<Drop, 'videoId' | 'channelId' | 'own'>[]> {
  for (let after = ''; ; ) {
    const rows: { id: string; videoId: string; channelId: string; own: string | null }[] = await db('drops')
      .select('id', 'videoId', 'channelId', 'own')
      .whereIn('state', ['draft', 'removed'])
      .where('id', '>', after)
      .orderBy('id')
      .limit(ROWS_AT_ONCE);
    yield rows.map((row) => ({ ...row, own: fromJson<OwnOnChannel>(row.own) ?? {} }));
    const last = rows.at(-1);
    if (!last || rows.length < ROWS_AT_ONCE) return;
    after = last.id;
  }
}

/** The history of drops, oldest first. */
export async function eventsOf(db: Database, dropIds: readonly string[]): Promise<DropEvent[]> {
  const rows: (Omit<DropEvent, 'by'> & ByRow)[] = await db('dropEvents')
    .select('id', 'dropId', 'at', 'kind', 'says', 'actor', 'via')
    .whereIn('dropId', [...dropIds])
    .orderBy('id');
  return rows.map(({ actor, via, ...row }) => ({ ...row, by: actorOf({ actor, via }) }));
}

/** Adds a step to a drop's history. */
export async function addDropEvent(db: Database, dropId: string, kind: string, says: string): Promise<void> {
  await db('dropEvents').insert({ dropId, at: now(db), kind, says: says.slice(0, 2000), ...byNow() });
}

const WAITS_KEPT_SECONDS = 30 * 24 * 3600;

/** Forgets that drops once waited for their site; where they stood and what was done stays. */
export async function forgetOldWaits(db: Database): Promise<void> {
  await db('dropEvents').where({ kind: 'waits' }).where('at', '<', inSeconds(db, -WAITS_KEPT_SECONDS)).delete();
}

/** Fields of a drop that may be set beside its state. */
export type DropFields = Partial<Omit<Drop, 'id' | 'videoId' | 'channelId' | 'state' | 'stateSince' | 'updatedAt'>>;

function toRow(db: Database, fields: DropFields): Record<string, unknown> {
  const row: Record<string, unknown> = { updatedAt: now(db) };
  for (const [key, value] of Object.entries(fields)) {
    const json = (JSON_FIELDS as readonly string[]).includes(key);
    row[key] = json ? toJson(value) : (value ?? null);
  }
  return row;
}

/** Sets fields of a drop that a person decides. */
export async function setDrop(db: Database, id: string, fields: DropFields): Promise<void> {
  await db('drops').where({ id }).update(toRow(db, fields));
}

/** Sets fields of the drop of a video on one channel, where there is one. */
export async function setDropOn(db: Database, videoId: string, channelId: string, fields: DropFields): Promise<void> {
  await db('drops').where({ videoId, channelId }).update(toRow(db, fields));
}

/** Sets fields of a drop that a worker carries. @throws ClaimLost where it is no longer the worker's. */
export async function setClaimedDrop(db: Database, claim: Claim, fields: DropFields): Promise<void> {
  if ((await claimed(db, claim).update(toRow(db, fields))) === 0) throw new ClaimLost(`drop ${claim.id}`);
}

/** Where a drop moves, what it waited for is over. */
const MOVED: DropFields = {
  snag: undefined,
  waiting: undefined,
  progress: undefined,
  attempts: 0,
  putOffSince: undefined,
  putOffBy: undefined,
  wordAt: undefined,
  opensAt: undefined,
};

const TOLD_TO_OTHERS: readonly DropState[] = ['held', 'live', 'removed'];

/**
 * Moves a drop and writes the move into its history. The next step is due at once.
 * @param keepsClaim whether the claim goes on to hold, for the state that follows
 * @throws MoveRefused where the life of a drop has no such move
 * @throws ClaimLost where a worker moves a drop that is no longer its own
 */
export async function moveDrop(
  db: Database,
  drop: Pick<Drop, 'id' | 'videoId' | 'state' | 'snag'>,
  move: MoveName,
  says: string,
  fields: DropFields = {},
  claim?: Claim,
  keepsClaim = false,
): Promise<DropState> {
  const state = stateAfter(move, drop.state, drop.snag);
  const row = {
    ...toRow(db, { ...MOVED, ...fields }),
    state,
    nextTryAt: now(db),
    stateSince: now(db),
    ...(claim && !keepsClaim ? { leaseOwner: null, leaseUntil: null } : {}),
  };
  const query = claim ? claimed(db, claim) : db('drops').where({ id: drop.id, state: drop.state });
  if ((await query.update(row)) === 0) throw new ClaimLost(`drop ${drop.id}`);
  await addDropEvent(db, drop.id, move, says);
  // Those that go out together wait for each other.
  if (TOLD_TO_OTHERS.includes(state)) await lookAtHeldAgain(db, drop.videoId, drop.id);
  return state;
}

/** Lets a drop rest for so many seconds. @throws ClaimLost */
export async function postponeDrop(db: Database, claim: Claim, seconds: number, fields: DropFields): Promise<void> {
  const row = { ...toRow(db, fields), nextTryAt: inSeconds(db, seconds), leaseOwner: null, leaseUntil: null };
  if ((await claimed(db, claim).update(row)) === 0) throw new ClaimLost(`drop ${claim.id}`);
}

/** Lets a drop rest of which nothing could be read, and counts the try. */
export async function postponeUnreadDrop(db: Database, claim: Claim, seconds: number): Promise<void> {
  const row = { nextTryAt: inSeconds(db, seconds), leaseOwner: null, leaseUntil: null };
  await claimed(db, claim).update(row).increment('attempts', 1);
}

/**
 * Live drops of a channel that are to be read again: not read as a whole since they opened, or not for so long.
 * @param seconds between two readings
 * @param but drops that are left for now
 */
export async function liveToRead(
  db: Database,
  channelId: string,
  seconds: number,
  most: number,
  but: readonly string[] = [],
): Promise<Drop[]> {
  const rows: Row[] = await db('drops')
    .select(columns)
    .where({ channelId, state: 'live' })
    .whereNotIn('id', [...but])
    .whereNotNull('siteVideoId')
    .where((query) => query.whereNull('readAt').orWhere('readAt', '<=', inSeconds(db, -seconds)))
    .orderBy('readAt')
    .limit(most);
  return rows.map(fromRow);
}

/** How often a drop was tried in vain. */
export async function triesOfDrop(db: Database, id: string): Promise<number> {
  const row: { attempts: number } | undefined = await db('drops').where({ id }).first('attempts');
  return row?.attempts ?? 0;
}

/**
 * Has a worker look again when the drops of a video open that are held. One that has a drop in hand loses it, so that nothing
 * opens by what it has read before.
 * @param but the drop that need not be looked at
 */
export async function lookAtHeldAgain(db: Database, videoId: string, but?: string): Promise<void> {
  const query = db('drops').where({ videoId, state: 'held' });
  if (but) query.whereNot({ id: but });
  await query.update({ nextTryAt: now(db), leaseOwner: null, leaseUntil: null });
}

/** The same for all that are held on channels of an account whose permission has ended. */
export async function lookAtHeldOfAccount(db: Database, accountId: string): Promise<void> {
  await db('drops')
    .where({ state: 'held' })
    .whereIn('channelId', db('channels').where({ accountId }).select('id'))
    .update({ nextTryAt: now(db), leaseOwner: null, leaseUntil: null });
}

/** Notes a person's word to open a drop that is held, which takes effect in so many seconds. Whether it was held is returned. */
export async function giveWord(db: Database, id: string, seconds: number): Promise<boolean> {
  const at = inSeconds(db, seconds);
  const word = { openAsked: true, wordAt: at, nextTryAt: at, updatedAt: now(db), leaseOwner: null, leaseUntil: null };
  return (await db('drops').where({ id, state: 'held', openAsked: false }).update(word)) > 0;
}

/** Takes a person's word back while it has not taken effect. Whether it was in time is returned. */
export async function takeWordBack(db: Database, id: string): Promise<boolean> {
  const none = { openAsked: false, wordAt: null, nextTryAt: now(db), updatedAt: now(db) };
  const held = db('drops').where({ id, state: 'held', openAsked: true });
  return (await held.update({ ...none, leaseOwner: null, leaseUntil: null })) > 0;
}

/**
 * The same where its moment has come, while the site has not been asked yet: whoever has the drop in hand looks at this before
 * it asks. A better file goes up by no such word.
 */
export async function takeWordBackAtMoment(db: Database, id: string): Promise<boolean> {
  const due = db('drops').where({ id, state: 'opening', openAsked: true }).whereNull('former');
  return (await due.update({ openAsked: false, updatedAt: now(db) })) > 0;
}

/**
 * Whether a drop of a video is being opened at this moment, so that the site may be showing it already. Where the site has put it
 * off, another release can be set: then the site is asked to close it first.
 */
export async function isOpeningNow(db: Database, videoId: string): Promise<boolean> {
  const rows = await db('drops')
    .where({ videoId, state: 'opening' })
    .whereNull('putOffSince')
    .whereNotNull('openedTo')
    .whereNot({ openedTo: 'private' })
    // What has opened before is only given other words.
    .where((opens) => opens.whereNotNull('releasedFor').orWhere({ openAsked: true }).orWhereNull('openedAt'));
  return rows.length > 0;
}

/** Makes drops due at once that wait for their video's file, for that has just been read. */
export async function hastenPacking(db: Database, videoId: string): Promise<void> {
  await db('drops')
    .where({ videoId, state: 'packing' })
    .whereNull('leaseOwner')
    .update({ nextTryAt: now(db) });
}

/** Makes drops of channels due at once that their site has put off. */
export async function hastenPutOff(db: Database, channelIds: readonly string[]): Promise<void> {
  await db('drops')
    .whereIn('channelId', [...channelIds])
    .whereNotNull('putOffBy')
    .whereNull('leaseOwner')
    .update({ nextTryAt: now(db) });
}

/** What a claim on a drop is chosen by. */
export interface DropChoice {
  states: readonly CarriedState[];
  most: number;
  /** Channels of sites that rest: none of their drops is taken, or one where the rest is over. */
  resting: readonly RestingChannel[];
  /** Whether the first try of a drop is made also at a site that rests: a person waits for it. */
  firstTryAlways: boolean;
  /** How many drops of one channel may be in these states' hands at a time, all workers taken together. */
  mostOfChannel?: number;
}

/** Claims drops that are due, those first that have waited longest. */
export async function claimDrops(worker: string, leaseSeconds: number, choice: DropChoice): Promise<Claim[]> {
  const { states, most, resting, firstTryAlways, mostOfChannel } = choice;
  return claimRows(
    'drops',
    async (db) => {
      const query = dueRows(db, 'drops', states);
      const closed = resting.filter(({ over }) => !over).map(({ channelId }) => channelId);
      if (closed.length > 0) {
        query.where((allowed) => {
          // Packing asks the site nothing.
          allowed.whereNotIn('channelId', closed).orWhere({ state: 'packing' });
          if (firstTryAlways) allowed.orWhere({ attempts: 0 });
        });
      }
      const full = mostOfChannel === undefined ? new Map<string, number>() : await inHandByChannel(db, states);
      if (mostOfChannel !== undefined) {
        query.whereNotIn(
          'channelId',
          [...full].filter(([, count]) => count >= mostOfChannel).map(([channelId]) => channelId),
        );
      }
      const rows: { id: string; state: string; channelId: string }[] = await query
        .select('id', 'state', 'channelId')
        .orderBy('nextTryAt')
        .limit(most * 4);
      const chosen: typeof rows = [];
      for (const row of rows) {
        const count = (full.get(row.channelId) ?? 0) + 1;
        if (chosen.length === most || count > (mostOfChannel ?? Number.POSITIVE_INFINITY)) continue;
        const trial = resting.find(({ channelId, over }) => over && channelId === row.channelId);
        if (trial && row.state !== 'packing' && !(await takeTrial(db, trial.site))) continue;
        full.set(row.channelId, count);
        chosen.push(row);
      }
      return chosen;
    },
    worker,
    leaseSeconds,
  );
}

async function inHandByChannel(db: Database, states: readonly string[]): Promise<Map<string, number>> {
  const rows: { channelId: string; count: number }[] = await db('drops')
    .whereIn('state', [...states])
    .where('leaseUntil', '>', now(db))
    .groupBy('channelId')
    .select('channelId')
    .count({ count: '*' });
  return new Map(rows.map(({ channelId, count }) => [channelId, Number(count)]));
}

import type { CutFacts } from '@/core/delivery';
import { toNumber } from '@/core/time';
import { inSeconds, now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import { askToRemoveFiles } from '@/store/files/removals';
import { newId } from '@/store/ids';
import { askForJobs, cancelJobs } from '@/store/queue/jobs';

export type CutState = 'arriving' | 'reading' | 'ready' | 'refused';

export interface Cut {
  id: string;
  videoId: string;
  ordinal: number;
  fileName: string;
  fileKey: string;
  /** What the browser knows the file by, to go on with a broken transfer. */
  fingerprint: string | undefined;
  size: number;
  received: number;
  state: CutState;
  digest: string | undefined;
  facts: CutFacts | undefined;
  refusal: string | undefined;
  createdAt: Date;
  arrivedAt: Date | undefined;
  /** When bytes of it came last, or the page that brings it last said that it is there. */
  heardAt: Date | undefined;
  /** When its file was taken off the disk, all its drops being live. */
  goneAt: Date | undefined;
}

type Row = { [K in keyof Cut]: Exclude<Cut[K], undefined> | null } & { facts: string | null };

const columns = [
  'id',
  'videoId',
  'ordinal',
  'fileName',
  'fileKey',
  'fingerprint',
  'size',
  'received',
  'state',
  'digest',
  'facts',
  'refusal',
  'createdAt',
  'arrivedAt',
  'heardAt',
  'goneAt',
];

function fromRow(row: Row): Cut {
  const entries = Object.entries(row).map(([key, value]) => [key, value ?? undefined]);
  return { ...Object.fromEntries(entries), facts: fromJson<CutFacts>(row.facts) } as Cut;
}

/** Notes that a file is on its way in as a video's next cut. */
export async function makeCut(
  db: Database,
  cut: Pick<Cut, 'videoId' | 'fileName' | 'fingerprint' | 'size'>,
): Promise<Cut> {
  const id = newId();
  const last = await db('cuts')
    .where({ videoId: cut.videoId })
    .max<{ last: number | null }>({ last: 'ordinal' })
    .first();
  const at = now(db);
  await db('cuts').insert({
    ...cut,
    id,
    ordinal: (last?.last ?? 0) + 1,
    fileKey: `cuts/${id}`,
    state: 'arriving',
    createdAt: at,
    heardAt: at,
  });
  return (await cutById(db, id)) as Cut;
}

export async function cutById(db: Database, id: string): Promise<Cut | undefined> {
  const row: Row | undefined = await db('cuts').where({ id }).first(columns);
  return row && fromRow(row);
}

/** The cuts of each video named, oldest first, by video. */
export async function cutsOf(db: Database, videoIds: readonly string[]): Promise<Map<string, Cut[]>> {
  const rows: Row[] = await db('cuts')
    .select(columns)
    .whereIn('videoId', [...videoIds])
    .orderBy('ordinal');
  const byVideo = new Map<string, Cut[]>();
  for (const row of rows) {
    const cut = fromRow(row);
    const ofVideo = byVideo.get(cut.videoId);
    if (ofVideo) ofVideo.push(cut);
    else byVideo.set(cut.videoId, [cut]);
  }
  return byVideo;
}

/**
 * Of a video's cuts, oldest first, the one in use: the one that was chosen, else the newest that is ready, else the newest.
 * @param chosen the id of the one that a person went back to
 */
export function cutInUse(cuts: readonly Cut[] = [], chosen?: string): Cut | undefined {
  const ready = cuts.filter((cut) => cut.state === 'ready');
  return ready.find(({ id }) => id === chosen) ?? ready.at(-1) ?? cuts.at(-1);
}

/** Of a video's cuts, oldest first, a better one that is not in use yet: on its way, or refused. */
export function betterCut(cuts: readonly Cut[] = []): Cut | undefined {
  const newest = cuts.at(-1);
  return newest && newest.state !== 'ready' && newest !== cutInUse(cuts) ? newest : undefined;
}

/** The cut in use of each video named, by video. */
export async function cutsInUse(db: Database, videoIds: readonly string[]): Promise<Map<string, Cut>> {
  const [all, chosen] = await Promise.all([
    cutsOf(db, videoIds),
    db('videos')
      .select<{ id: string; cutId: string | null }[]>('id', 'cutId')
      .whereIn('id', [...videoIds]),
  ]);
  const chosenOf = new Map(chosen.map(({ id, cutId }) => [id, cutId ?? undefined]));
  return new Map(
    [...all].flatMap(([id, cuts]) => {
      const cut = cutInUse(cuts, chosenOf.get(id));
      return cut ? [[id, cut] as const] : [];
    }),
  );
}

/** The cuts that are known by a fingerprint, oldest first. */
export async function cutsByFingerprint(db: Database, fingerprint: string): Promise<Cut[]> {
  const rows: Row[] = await db('cuts').where({ fingerprint }).orderBy('id').select(columns);
  return rows.map(fromRow);
}

/** The cuts that are on their way in. */
export async function cutsArriving(db: Database): Promise<Cut[]> {
  const rows: Row[] = await db('cuts').where({ state: 'arriving' }).orderBy('id').select(columns);
  return rows.map(fromRow);
}

const GIVEN_UP_SECONDS = 24 * 3600;

/** How many bytes are still to come of all the cuts that are on their way in and were heard of within a day. */
export async function bytesToCome(db: Database): Promise<number> {
  const row: { bytes?: string | number | null } | undefined = await db('cuts')
    .where({ state: 'arriving' })
    .where('heardAt', '>=', inSeconds(db, -GIVEN_UP_SECONDS))
    .sum({ bytes: db.raw('GREATEST(0, CAST(size AS SIGNED) - CAST(received AS SIGNED))') })
    .first();
  return Number(row?.bytes ?? 0);
}

/** Notes that a page that brings cuts is there. */
export async function noteHeard(db: Database, ids: readonly string[]): Promise<void> {
  await db('cuts')
    .whereIn('id', [...ids])
    .where({ state: 'arriving' })
    .update({ heardAt: now(db) });
}

/** Notes how much of a file has come in. */
export async function noteReceived(db: Database, id: string, received: number): Promise<void> {
  await db('cuts')
    .where({ id, state: 'arriving' })
    .update({ received, heardAt: now(db) });
}

/**
 * Notes that every byte of a cut is here, for a worker to read its facts; nothing happens where it is known already.
 * @param digest its SHA-256 in hexadecimal, where that was made while it came
 */
export async function noteArrived(trx: Database, id: string, size: number, digest?: string): Promise<void> {
  const arrived = { state: 'reading', size, received: size, arrivedAt: now(trx), digest: digest ?? null };
  if ((await trx('cuts').where({ id, state: 'arriving' }).update(arrived)) > 0) await askForJobs(trx, 'read', [id]);
}

/** The cut of another video that has the same bytes, the oldest. @param digest SHA-256 in hexadecimal */
export async function sameCutElsewhere(db: Database, cut: Pick<Cut, 'videoId' | 'digest'>): Promise<Cut | undefined> {
  if (!cut.digest) return undefined;
  const row: Row | undefined = await db('cuts')
    .where({ digest: cut.digest })
    .whereNot({ videoId: cut.videoId })
    .orderBy('id')
    .first(columns);
  return row && fromRow(row);
}

/** A cut of another video, with the channels that the video was sent to. */
export interface SentCut {
  id: string;
  title: string;
  facts: CutFacts;
  channelIds: string[];
}

const MOST_COMPARED = 20;

/**
 * Cuts of about one length, of other videos that were sent to some channels, the newest first.
 * @param asked `seconds` of the cut, and by how many others may differ; the video and channels that are looked at
 */
export async function cutsSentOfLength(
  db: Database,
  asked: { videoId: string; seconds: number; within: number; channelIds: readonly string[] },
): Promise<SentCut[]> {
  const { videoId, seconds, within, channelIds } = asked;
  const rows: { id: string; title: string; facts: string; channels: string }[] = await db('cuts as c')
    .join('drops as d', 'd.videoId', 'c.videoId')
    .join('videos as v', 'v.id', 'c.videoId')
    .whereBetween('c.seconds', [seconds - within, seconds + within])
    .where('c.state', 'ready')
    .whereNot('c.videoId', videoId)
    .whereIn('d.channelId', [...channelIds])
    .whereNotIn('d.state', ['draft', 'removed'])
    .groupBy('c.id')
    .orderBy('c.id', 'desc')
    .limit(MOST_COMPARED)
    .select('c.id', 'v.title', 'c.facts', { channels: db.raw('GROUP_CONCAT(??)', ['d.channelId']) });
  return rows.map(({ channels, facts, ...row }) => ({
    ...row,
    facts: fromJson<CutFacts>(facts) as CutFacts,
    channelIds: channels.split(','),
  }));
}

/** Ends the reading of a cut: with its facts, or with why it cannot be used. */
export async function endReading(
  db: Database,
  id: string,
  found: { facts: CutFacts; digest: string } | { refusal: string },
): Promise<void> {
  const fields =
    'facts' in found
      ? { state: 'ready', facts: toJson(found.facts), digest: found.digest, seconds: toNumber(found.facts.duration) }
      : { state: 'refused', refusal: found.refusal };
  await db('cuts').where({ id, state: 'reading' }).update(fields);
}

/** Keeps more facts of a cut that has been read, as where more is asked of a file than before. */
export async function keepFacts(db: Database, id: string, facts: CutFacts): Promise<void> {
  await db('cuts')
    .where({ id })
    .update({ facts: toJson(facts) });
}

/** The keys of everything that is kept on the disk of some cuts: their files, what the protocol noted beside them, copies. */
export async function fileKeysOf(db: Database, cutIds: readonly string[]): Promise<string[]> {
  const within = [...cutIds];
  const cuts: { fileKey: string }[] = await db('cuts').whereIn('id', within).select('fileKey');
  const copies: { fileKey: string }[] = await db('renditions').whereIn('cutId', within).select('fileKey');
  const keys = cuts.flatMap(({ fileKey }) => [fileKey, `${fileKey}.json`]);
  return [...new Set([...keys, ...copies.map(({ fileKey }) => fileKey)])];
}

/** The ids of everything that is made, or to be made, of some cuts. */
export async function renditionIdsOf(db: Database, cutIds: readonly string[]): Promise<string[]> {
  const rows: { id: string }[] = await db('renditions')
    .whereIn('cutId', [...cutIds])
    .select('id');
  return rows.map(({ id }) => id);
}

/** Deletes a cut, with what was to be done on it. */
export async function deleteCut(trx: Database, id: string): Promise<void> {
  await askToRemoveFiles(trx, await fileKeysOf(trx, [id]));
  await cancelJobs(trx, [id, ...(await renditionIdsOf(trx, [id]))]);
  await trx('cuts').where({ id }).delete();
}

/** Takes the files of cuts off the disk, and keeps all that is known of them. */
export async function letCutsGo(trx: Database, cuts: readonly Pick<Cut, 'id' | 'fileKey'>[]): Promise<void> {
  const ids = cuts.map(({ id }) => id);
  await askToRemoveFiles(
    trx,
    cuts.flatMap(({ fileKey }) => [fileKey, `${fileKey}.json`]),
  );
  await trx('cuts')
    .whereIn('id', ids)
    .whereNull('goneAt')
    .update({ goneAt: now(trx) });
}

/** Names of the files that came last, newest first. */
export async function recentFileNames(db: Database, most = 30): Promise<string[]> {
  const rows: { fileName: string }[] = await db('cuts').orderBy('id', 'desc').limit(most).select('fileName');
  return rows.map(({ fileName }) => fileName);
}

const MOST_LOOKED_AT = 5000;

/** The first file of each video that is in no series, the newest first. */
export async function filesInNoSeries(db: Database): Promise<{ videoId: string; fileName: string }[]> {
  return db('cuts')
    .join('videos', 'videos.id', 'cuts.videoId')
    .whereNull('videos.seriesId')
    .where('cuts.ordinal', 1)
    .orderBy('videos.id', 'desc')
    .limit(MOST_LOOKED_AT)
    .select('cuts.videoId', 'cuts.fileName');
}

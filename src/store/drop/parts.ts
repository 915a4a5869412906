import {
  isPartName,
  type PartName,
  type PartsAtSite,
  type PartsGiven,
  type ShownOtherwise,
  type ShownPart,
} from '@/core/parts';
import type { Shelf } from '@/core/words';
import { inSeconds, now } from '@/store/clock';
import { type Database, fromJson } from '@/store/database';
import type { Drop } from '@/store/drop/shape';

/** Which video at a site: a drop that was sent anew has nothing of what the one before was given. */
export type PartsOf = Pick<Drop, 'id' | 'round'>;

/** Everything that is kept of one part of a video at its site. */
export interface KeptPart {
  part: PartName;
  /** What the site has confirmed. */
  given: unknown;
  givenAt: Date | undefined;
  /** What it was asked to take and has not answered, by the key of the request. */
  asked: unknown;
  askedAt: Date | undefined;
  askedKey: string | undefined;
  /** What it was last seen to show, where that is something else; null is nothing. */
  shown: unknown;
  shownAt: Date | undefined;
  differs: ShownPart['differs'] | undefined;
  /** Why it could not be given, and when it is tried again. */
  failed: string | undefined;
  failedAt: Date | undefined;
  retryAt: Date | undefined;
}

interface Row {
  dropId: string;
  part: string;
  given: string | null;
  givenAt: Date | null;
  asked: string | null;
  askedAt: Date | null;
  askedKey: string | null;
  shown: string | null;
  shownAt: Date | null;
  differs: ShownPart['differs'] | null;
  failed: string | null;
  failedAt: Date | null;
  retryAt: Date | null;
}

const columns = [
  ...(['dropId', 'part', 'given', 'givenAt', 'asked', 'askedAt', 'askedKey'] as const),
  ...(['shown', 'shownAt', 'differs', 'failed', 'failedAt', 'retryAt'] as const),
].map((name) => `dropParts.${name}`);

const value = (text: string | null): unknown => (text === null ? undefined : JSON.parse(text));

const fromRow = (row: Row): KeptPart => ({
  part: row.part as PartName,
  given: value(row.given),
  givenAt: row.givenAt ?? undefined,
  asked: value(row.asked),
  askedAt: row.askedAt ?? undefined,
  askedKey: row.askedKey ?? undefined,
  shown: value(row.shown),
  shownAt: row.shownAt ?? undefined,
  differs: row.differs ?? undefined,
  failed: row.failed ?? undefined,
  failedAt: row.failedAt ?? undefined,
  retryAt: row.retryAt ?? undefined,
});

/** What is kept of the parts of drops, by drop, of the videos that they are at their sites now. */
export async function partsOfDrops(db: Database, dropIds: readonly string[]): Promise<Map<string, KeptPart[]>> {
  const rows: Row[] = await db('dropParts')
    .join('drops', (on) => on.on('drops.id', 'dropParts.dropId').andOn('drops.round', 'dropParts.round'))
    .whereIn('dropParts.dropId', [...dropIds])
    .select(columns);
  const byDrop = new Map<string, KeptPart[]>(dropIds.map((id) => [id, []]));
  // A part that only a later version knows says nothing here.
  for (const row of rows.filter(({ part }) => isPartName(part))) byDrop.get(row.dropId)?.push(fromRow(row));
  return byDrop;
}

/** What is kept of the parts of one drop. */
export const partsOfDrop = async (db: Database, { id, round }: PartsOf): Promise<KeptPart[]> => {
  const rows: Row[] = await db('dropParts').where({ dropId: id, round }).select(columns);
  return rows.filter(({ part }) => isPartName(part)).map(fromRow);
};

/** What the site has of each part, and what it was asked and has not answered. */
export const atSite = (kept: readonly KeptPart[]): PartsAtSite =>
  Object.fromEntries(kept.map(({ part, given, asked, failed }) => [part, { given, asked, failed }])) as PartsAtSite;

/** The parts that the site was last seen to show otherwise. */
export const shownOtherwise = (kept: readonly KeptPart[]): ShownOtherwise =>
  Object.fromEntries(kept.flatMap(({ part, shown, differs }) => (differs ? [[part, { shown, differs }]] : [])));

const rowsOf = ({ id, round }: PartsOf, values: PartsGiven, fields: (text: string) => object) =>
  Object.entries(values).map(([part, each]) => ({ dropId: id, round, part, ...fields(JSON.stringify(each)) }));

async function put(db: Database, rows: readonly object[], merged: readonly string[]): Promise<void> {
  if (rows.length === 0) return;
  await db('dropParts')
    .insert([...rows])
    .onConflict(['dropId', 'round', 'part'])
    .merge([...merged]);
}

/** Notes that a site is asked to take parts, before it is asked. @param askedKey what is given with them has the same */
export async function noteAskedParts(db: Database, drop: PartsOf, values: PartsGiven, askedKey: string): Promise<void> {
  await put(
    db,
    rowsOf(drop, values, (asked) => ({ asked, askedKey, askedAt: now(db) })),
    ['asked', 'askedKey', 'askedAt'],
  );
}

const ANSWERED = { asked: null, askedAt: null, askedKey: null };

/** What it showed before says nothing of a part that was given, and neither does why it failed. */
const GIVEN = { ...ANSWERED, shown: null, shownAt: null, differs: null, failed: null, failedAt: null, retryAt: null };

/** Counts parts as given, whatever was asked. */
export async function noteGivenParts(db: Database, drop: PartsOf, values: PartsGiven): Promise<void> {
  const rows = rowsOf(drop, values, (given) => ({ ...GIVEN, given, givenAt: now(db) }));
  await put(db, rows, [...Object.keys(GIVEN), 'given', 'givenAt']);
}

/**
 * Notes that a site has confirmed what it was asked. A part that it was asked something else of since is not confirmed by that.
 * @param askedKey of what it was asked
 */
export async function confirmParts(db: Database, drop: PartsOf, values: PartsGiven, askedKey: string): Promise<void> {
  const confirmed: PartsGiven = {};
  for (const [part, each] of Object.entries(values)) {
    const asked = db('dropParts').where({ dropId: drop.id, round: drop.round, part, askedKey });
    const count = await asked.update({ ...GIVEN, given: JSON.stringify(each), givenAt: now(db) });
    if (count > 0) Object.assign(confirmed, { [part]: each });
  }
  await noteHistory(db, drop.id, confirmed, askedKey);
}

/**
 * Notes that a site has refused what it was asked: it has what it had.
 * @param askedKey of what it was asked
 * @param againIn seconds until it is tried again by itself
 */
export async function noteFailedParts(
  db: Database,
  drop: PartsOf,
  parts: readonly PartName[],
  { failed, askedKey, againIn }: { failed: string; askedKey: string; againIn?: number },
): Promise<void> {
  await db('dropParts')
    .where({ dropId: drop.id, round: drop.round, askedKey })
    .whereIn('part', [...parts])
    .update({
      ...ANSWERED,
      failed: failed.slice(0, 2000),
      failedAt: now(db),
      retryAt: againIn === undefined ? null : inSeconds(db, againIn),
    });
}

/** Live drops of a channel with parts that are to be tried again now; they are not told of a second time. */
export async function takePartsToRetry(trx: Database, channelId: string, most: number): Promise<string[]> {
  const due = trx('dropParts')
    .join('drops', (on) => on.on('drops.id', 'dropParts.dropId').andOn('drops.round', 'dropParts.round'))
    .where({ channelId, state: 'live' })
    .where('retryAt', '<=', now(trx));
  const ids: string[] = await due.distinct('drops.id').limit(most).pluck('drops.id');
  if (ids.length > 0)
    await trx('dropParts').whereIn('dropId', ids).where('retryAt', '<=', now(trx)).update({ retryAt: null });
  return ids;
}

/** Forgets what a site has of some parts, or of all: they are given once more. */
export async function forgetGiven(db: Database, { id, round }: PartsOf, parts?: readonly PartName[]): Promise<void> {
  const rows = db('dropParts').where({ dropId: id, round });
  if (parts) rows.whereIn('part', [...parts]);
  await rows.update({ ...ANSWERED, given: null, givenAt: null });
}

/** Keeps what a reading has found: the parts that are shown otherwise, and no others. */
export async function noteShownParts(db: Database, { id, round }: PartsOf, kept: ShownOtherwise): Promise<void> {
  const parts = Object.entries(kept) as [PartName, ShownPart][];
  await db('dropParts')
    .where({ dropId: id, round })
    .whereNotNull('differs')
    .whereNotIn(
      'part',
      parts.map(([part]) => part),
    )
    .update({ shown: null, shownAt: null, differs: null });
  const rows = parts.map(([part, { shown, differs }]) => ({
    ...{ dropId: id, round, part, shown: JSON.stringify(shown), shownAt: now(db), differs },
  }));
  await put(db, rows, ['shown', 'shownAt', 'differs']);
}

/** Forgets that a part was shown otherwise. */
export async function noteShownAsMeant(db: Database, { id, round }: PartsOf, part: PartName): Promise<void> {
  await db('dropParts').where({ dropId: id, round, part }).update({ shown: null, shownAt: null, differs: null });
}

/** Leaves parts that are shown otherwise as they are. */
export async function noteLeft(db: Database, { id, round }: PartsOf): Promise<void> {
  await db('dropParts').where({ dropId: id, round, differs: 'open' }).update({ differs: 'left' });
}

/** Forgets what earlier videos of a drop had at its site, where none of them is there any more. */
export async function forgetPartsOfBefore(db: Database, { id, round }: PartsOf): Promise<void> {
  if (round > 0) await db('dropParts').where({ dropId: id }).where('round', '<', round).delete();
}

/** Gives a drop the parts back that an earlier video of it had at its site. */
export async function partsOfBefore(db: Database, id: string, before: number, round: number): Promise<void> {
  const rows: object[] = await db('dropParts').where({ dropId: id, round: before }).select();
  if (rows.length > 0) await db('dropParts').insert(rows.map((row) => ({ ...row, round })));
}

/** A part that a site was given at one time. */
export interface GivenPart {
  id: number;
  part: PartName;
  /** What was given with it has the same. */
  askedKey: string;
  at: Date;
  value: unknown;
}

const KEPT_OF_PART = 100;

/** Keeps each value of a part that is another than the one before. */
async function noteHistory(db: Database, dropId: string, values: PartsGiven, askedKey: string): Promise<void> {
  for (const [part, each] of Object.entries(values)) {
    const text = JSON.stringify(each);
    const of = () => db('givenParts').where({ dropId, part }).orderBy('id', 'desc');
    const last: { value: string } | undefined = await of().first('value');
    if (last?.value === text) continue;
    await db('givenParts').insert({ dropId, part, askedKey, at: now(db), value: text });
    const oldest: { id: number } | undefined = await of().offset(KEPT_OF_PART).first('id');
    if (oldest) await db('givenParts').where({ dropId, part }).where('id', '<=', oldest.id).delete();
  }
}

/** Everything that a drop's site was given, part by part, the oldest first. */
export async function givenTo(db: Database, dropId: string): Promise<GivenPart[]> {
  const rows: (Omit<GivenPart, 'value'> & { value: string })[] = await db('givenParts')
    .where({ dropId })
    .orderBy('id')
    .select('id', 'part', 'askedKey', 'at', 'value');
  return rows.filter(({ part }) => isPartName(part)).map((row) => ({ ...row, value: JSON.parse(row.value) }));
}

/** A link of the shelf that stands in what a site was given. */
export interface SentLink extends Pick<Drop, 'videoId' | 'channelId'> {
  /** Its name on the shelf when it was sent. */
  link: string;
  /** The address that went out. */
  url: string;
}

/**
 * The links of the shelf that stand in one of the parts named of what drops at a site were given; no text is read for it.
 * A site that takes no links, or a text by hand, has left out what the drop was sent with.
 */
export async function linksSent(db: Database, parts: readonly PartName[]): Promise<SentLink[]> {
  const rows: { videoId: string; channelId: string; url: string; shelf: string }[] = await db('drops')
    .join('dropParts', (on) => on.on('drops.id', 'dropParts.dropId').andOn('drops.round', 'dropParts.round'))
    .joinRaw(
      `JOIN JSON_TABLE(JSON_EXTRACT(??, '$.shelf.*'), '$[*]' COLUMNS (url TEXT PATH '$.url')) AS used ON LOCATE(BINARY ??, ??) > 0`,
      ['drops.sentWith', 'used.url', 'dropParts.given'],
    )
    .distinct('videoId', 'channelId', 'used.url')
    .select({ shelf: db.raw(`JSON_EXTRACT(??, '$.shelf')`, ['drops.sentWith']) })
    .whereNotNull('sentWith')
    .whereNotIn('state', ['draft', 'removed'])
    .whereIn('part', [...parts])
    .orderBy(['videoId', 'channelId', 'url']);
  return rows.flatMap(({ shelf, ...row }) =>
    Object.entries(fromJson<Shelf>(shelf) ?? {}).flatMap(([link, { url }]) =>
      url === row.url ? [{ ...row, link }] : [],
    ),
  );
}

/** Parts of a live video that are not as they should be at its site. */
export interface PartsAmiss {
  /** Somebody has changed them there, and nobody has decided. */
  changedThere: PartName[];
  /** The site did not take them. */
  notTaken: PartName[];
}

/** What of the parts of a live video is not as it should be. */
export const partsAmiss = (kept: readonly Pick<KeptPart, 'part' | 'differs' | 'failed'>[]): PartsAmiss => ({
  changedThere: kept.filter(({ differs }) => differs === 'open').map(({ part }) => part),
  notTaken: kept.filter(({ failed }) => failed !== undefined).map(({ part }) => part),
});

/** The same of many live drops, by drop; those where all is well are not among them. */
export async function partsAmissOf(db: Database, dropIds: readonly string[]): Promise<Map<string, PartsAmiss>> {
  const rows: Row[] = await db('dropParts')
    .join('drops', (on) => on.on('drops.id', 'dropParts.dropId').andOn('drops.round', 'dropParts.round'))
    .whereIn('dropParts.dropId', [...dropIds])
    .where({ state: 'live' })
    .where((amiss) => amiss.where({ differs: 'open' }).orWhereNotNull('failed'))
    .select(columns);
  const byDrop = new Map<string, KeptPart[]>();
  for (const row of rows.filter(({ part }) => isPartName(part))) {
    byDrop.set(row.dropId, [...(byDrop.get(row.dropId) ?? []), fromRow(row)]);
  }
  return new Map([...byDrop].map(([id, kept]) => [id, partsAmiss(kept)]));
}

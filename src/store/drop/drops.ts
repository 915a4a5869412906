import { type DropState, type MoveName, type Snag, stateAfter } from '@/core/drop';
import { now } from '@/store/clock';
import { type Database, fromJson } from '@/store/database';
import { giveUpEarlyUploads } from '@/store/drop/early-uploads';
import { newId } from '@/store/ids';
import { type Claim, ClaimLost, claimed } from '@/store/queue/claims';
import { addDropEvent } from './events';
import { lookAtHeldAgain } from './held';
import { columns, type DropFields, fromRow, type Row, toRow } from './rows';
import type { Drop, OwnOnChannel } from './shape';

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

/** A drop, with the database's time at which it was so. */
export async function dropNow(db: Database, id: string): Promise<{ drop: Drop; now: Date } | undefined> {
  const row: (Row & { databaseNow: Date }) | undefined = await db('drops')
    .where({ id })
    .select(columns)
    .select({ databaseNow: now(db) })
    .first();
  if (!row) return undefined;
  const { databaseNow, ...kept } = row;
  return { drop: fromRow(kept), now: databaseNow };
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

import { type MoveName, MoveRefused } from '@/core/drop';
import { type Database, transaction } from '@/store/database';
import { moveDrop } from '@/store/drop/drops';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { ClaimLost } from '@/store/queue/claims';
import { DeskError } from '../desk-error';
import { isInAct } from '../window';

/** What somebody hears who decides on what is no longer so. */
export const changedMeanwhile = (): DeskError =>
  new DeskError('not now', 'It has changed meanwhile. Look at it again, then decide.');

/** Does what may not follow any more where the drop has moved on meanwhile. @throws DeskError then */
export async function orChangedMeanwhile<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof MoveRefused || error instanceof ClaimLost) throw changedMeanwhile();
    throw error;
  }
}

/**
 * Makes a person's move, with its step in the history and what else belongs to it, all of it or nothing.
 * @param beside what is changed along with it
 * @throws DeskError where the drop has moved on meanwhile
 */
export const makeMove = (
  drop: Pick<Drop, 'id' | 'state' | 'snag' | 'videoId'>,
  move: MoveName,
  says: string,
  fields: DropFields = {},
  beside: (trx: Database) => Promise<void> = async () => {},
): Promise<void> =>
  orChangedMeanwhile(() =>
    transaction(async (trx) => {
      await beside(trx);
      await moveDrop(trx, drop, move, says, { ...fields, amongMany: isInAct() });
      await announce(trx, 'video', drop.videoId);
    }),
  );

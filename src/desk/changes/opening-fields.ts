import type { DefaultField, LayerValues } from '@/core/defaults';
import type { Database } from '@/store/database';
import { dropsOf, moveDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import { lookAtHeldAgain } from '@/store/drop/held';
import { isOpeningNow, takeWordBack, takeWordBackAtMoment } from '@/store/drop/words';
import { DeskError } from '../desk-error';

/** Fields that decide when a video opens, and to whom. */
const OPENING_FIELDS: readonly DefaultField[] = ['privacy', 'release', 'opensAt', 'lateAtMost'];
/** Of these, what may not change while a site is asked to open it: one of the two would win by half. */
const MOMENT_FIELDS: readonly DefaultField[] = ['release', 'opensAt'];

/**
 * Has drops that are held, or have missed their moment, keep to another release from now on. Its video is locked.
 * @param before what the video, or it on one channel, sets until now
 * @param channelId of the one channel that it is set for
 * @throws DeskError where the moment is changed and a site is just being asked to open it
 */
export async function keepToRelease(
  trx: Database,
  videoId: string,
  before: LayerValues,
  after: LayerValues,
  channelId?: string,
): Promise<void> {
  const differs = (field: DefaultField) => JSON.stringify(before[field]) !== JSON.stringify(after[field]);
  if (!OPENING_FIELDS.some(differs)) return;
  if (MOMENT_FIELDS.some(differs) && (await isOpeningNow(trx, videoId))) {
    throw new DeskError('not now', 'It is being opened at this moment, as was set. Look at it again in a few seconds.');
  }
  await lookAtHeldAgain(trx, videoId);
  for (const drop of await dropsOf(trx, [videoId])) {
    if (channelId !== undefined && drop.channelId !== channelId) continue;
    // What is said last holds: a word of before does not open it ahead of a time that was set since.
    const taken = MOMENT_FIELDS.some(differs)
      ? (await takeWordBack(trx, drop.id)) || (await takeWordBackAtMoment(trx, drop.id))
      : false;
    if (taken) {
      await addDropEvent(trx, drop.id, 'word', 'Not opened by your word: another release was set since');
    }
    if (drop.snag?.kind === 'missed') await moveDrop(trx, drop, 'tryAgain', 'Its release was changed');
  }
}

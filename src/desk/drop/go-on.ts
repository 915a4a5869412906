import type { DropState } from '@/core/drop';
import { allChannels } from '@/store/channels';
import { database } from '@/store/database';
import { dropById } from '@/store/drops';
import { makeMove } from './make-move';

/** After an account has been connected again: drops that stood still for its permission go on where they stood. */
export async function goOnAfterPermission(accountId: string): Promise<void> {
  const db = database();
  const channels = (await allChannels(db)).filter((channel) => channel.accountId === accountId && channel.granted);
  const ids = channels.map((channel) => channel.id);
  const waiting: { id: string; state: DropState }[] = await db('drops')
    .select('id', 'state')
    .whereIn('channelId', ids)
    .andWhere({ state: 'snag' });
  for (const { id } of waiting) {
    const drop = await dropById(db, id);
    if (drop?.snag?.kind !== 'permission') continue;
    await makeMove(drop, 'tryAgain', 'Goes on: the account is connected again');
  }
}

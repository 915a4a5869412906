import { database } from '@/store/database';
import { dropsWithSnag } from '@/store/drop/drops';
import { allChannels } from '@/store/site/channels';
import { makeMove } from './make-move';

/** After an account has been connected again: drops that stood still for its permission go on where they stood. */
export async function goOnAfterPermission(accountId: string): Promise<void> {
  const db = database();
  const channels = (await allChannels(db)).filter((channel) => channel.accountId === accountId && channel.granted);
  const ids = channels.map((channel) => channel.id);
  for (const drop of await dropsWithSnag(db, ids, 'permission')) {
    await makeMove(drop, 'tryAgain', 'Goes on: the account is connected again');
  }
}

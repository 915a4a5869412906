import { Readable } from 'node:stream';
import { siteById } from '@/sites/registry';
import { database } from '@/store/database';
import { dropById, setDrop } from '@/store/drop/drops';
import { transferKey } from '@/store/drop/shape';
import { settings } from '@/store/settings';
import { yardSession } from './desk';

/** Has Lanternfold make room for a drop, as if the worker had ended before it heard so. */
export async function madeRoom(dropId: string, fileName: string): Promise<void> {
  const drop = await dropById(database(), dropId);
  if (!drop) throw new Error('There is no drop');
  const begunWith = { key: transferKey(drop), fileName, size: 1000 };
  await setDrop(database(), dropId, { begunWith });
  const site = siteById('lanternfold', settings().sitesPort);
  const session = await yardSession('lanternfold');
  const [channel] = await site.channels(session);
  await site.begin(session, channel?.siteChannelId ?? '', begunWith.key, {
    ...begunWith,
    open: () => Readable.from([]),
  });
}

import { SiteError } from '@/sites/contract';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { channelById } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { site } from '../site/session';
import { readAgain } from './read-again';

/** Reads something from a site that a person waits for. @throws DeskError where it does not answer */
export async function readFrom<T>(siteId: string, read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (!(error instanceof SiteError)) throw error;
    throw new DeskError('site', `${site(siteId).profile.name} could not be read: ${error.message}. Try again.`);
  }
}

/** Reads a live video again because a person asks for it, not only daily. @throws DeskError where it is not live */
export async function readNow(dropId: string): Promise<void> {
  const drop = found(await dropById(database(), dropId), 'drop');
  const channel = found(await channelById(database(), drop.channelId), 'channel');
  if (drop.state !== 'live') throw new DeskError('not now', 'It is read again once it is live.');
  await readFrom(channel.site, () => readAgain(drop, channel, [], 'urgent'));
}

import { setTimeout as pause } from 'node:timers/promises';
import { log } from '@/desk/log';
import { refreshPlaylists } from '@/desk/playlists';
import { site } from '@/desk/session';
import { allChannels } from '@/store/channels';
import { database } from '@/store/database';

const EVERY_MILLISECONDS = 5 * 60_000;

/** Reads the playlists of every connected channel again from time to time, since they change at the sites, too. */
export async function keepPlaylists(signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    await pause(EVERY_MILLISECONDS, undefined, { signal }).catch(() => undefined);
    if (signal.aborted) return;
    const channels = await allChannels(database()).catch(() => []);
    for (const channel of channels) {
      const connected = channel.accountState === 'connected' && channel.granted;
      if (!connected || !site(channel.site).profile.abilities.groups) continue;
      await refreshPlaylists(channel.id).catch((error: Error) => {
        log.info({ channel: channel.id, why: error.message }, 'playlists not read');
      });
    }
  }
}

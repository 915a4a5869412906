import { log } from '@/desk/log';
import { refreshPlaylists } from '@/desk/site/playlists';
import { isOpenToUs, site } from '@/desk/site/session';
import { database } from '@/store/database';
import { channelById } from '@/store/site/channels';
import type { JobWork } from './job-work';

/** Reads the playlists of a channel again from time to time, since they change at the sites, too. */
export const keepPlaylists: JobWork = {
  everySeconds: 300,
  async run({ job }) {
    const channel = await channelById(database(), job.subject);
    if (channel && isOpenToUs(channel) && site(channel.site).profile.abilities.groups) {
      await refreshPlaylists(channel.id, 'look').catch((error: Error) => {
        log.info({ channel: channel.id, why: error.message }, 'playlists not read');
      });
    }
    return {};
  },
};

import { lookInInbox } from '@/desk/inbox/look-in-inbox';
import { actAs } from '@/store/actor';
import { settings } from '@/store/settings';
import type { JobWork } from './job-work';

/** Looks into the folder that is watched, from time to time. */
export const inbox: JobWork = {
  everySeconds: 2,
  async run({ signal }) {
    const { inbox: folder } = settings();
    if (folder) await actAs({ who: 'inbox' }, () => lookInInbox(folder, signal));
    return {};
  },
};

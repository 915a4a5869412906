import { NOTICE_WAYS, type NoticeWay } from '@/core/notices';
import { deliverDue } from '@/desk/notices/deliver';
import { database } from '@/store/database';
import { secondsToDelivery } from '@/store/notices/notices';
import type { JobWork } from './job-work';

const MOST_SECONDS = 60;

/** Tells what is due by mail, or by webhook; each way is a job of its own, so that the one does not wait for the other. */
export const tellDue: JobWork = {
  everySeconds: MOST_SECONDS,
  async run({ job }) {
    const way = NOTICE_WAYS.find((each) => each === job.subject) as NoticeWay;
    await deliverDue(way);
    const next = await secondsToDelivery(database(), way);
    return { again: Math.min(MOST_SECONDS, next ?? MOST_SECONDS) };
  },
};

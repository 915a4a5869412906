import { tidyUp } from '@/desk/house/tidy-up';
import type { JobWork } from './job-work';

const EVERY_SECONDS = 600;

/** Takes away what nobody needs any more, from time to time. */
export const tidy: JobWork = {
  async run() {
    await tidyUp();
    return { againInSeconds: EVERY_SECONDS };
  },
};

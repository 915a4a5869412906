import { tidyUp } from '@/desk/house/tidy-up';
import type { JobWork } from './job-work';

/** Takes away what nobody needs any more, from time to time. */
export const tidy: JobWork = {
  everySeconds: 600,
  async run() {
    await tidyUp();
    return {};
  },
};

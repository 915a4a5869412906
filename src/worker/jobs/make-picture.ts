import { DeskError } from '@/desk/desk-error';
import { log } from '@/desk/log';
import { makeHabitPicture } from '@/desk/video/pictures';
import { ProgramError } from '@/media/program';
import type { JobWork } from './job-work';

/** Makes the picture that the layers ask for; the subject is the video. */
export const makePicture: JobWork = {
  async run({ job }) {
    try {
      await makeHabitPicture(job.subject);
    } catch (error) {
      // Its file may be gone from the disk.
      if (!(error instanceof ProgramError || error instanceof DeskError)) throw error;
      log.warn({ video: job.subject, why: error.message }, 'no picture could be made');
    }
    return {};
  },
  videoOf: async (_, { subject }) => subject,
};

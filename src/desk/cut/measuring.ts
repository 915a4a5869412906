import { database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { cancelJob, type JobProgress, jobsOf } from '@/store/queue/jobs';
import { cutById } from '@/store/record/cuts';
import { endMeasuring, measurementOf } from '@/store/record/measurements';
import { DeskError, found } from '../desk-error';

/** How far the measuring of a cut is; undefined where it is not being measured, or has not begun. */
export async function lookAtMeasuring(cutId: string): Promise<JobProgress | undefined> {
  return (await jobsOf(database(), 'measure', [cutId])).get(cutId)?.progress;
}

/** Stops measuring a cut; it can be asked for again. @throws DeskError where it is not being measured */
export async function stopMeasuring(cutId: string): Promise<void> {
  const { videoId } = found(await cutById(database(), cutId), 'file');
  await transaction(async (trx) => {
    if ((await measurementOf(trx, cutId))?.state !== 'waiting') {
      throw new DeskError('not now', 'The file is not being looked over now.');
    }
    await cancelJob(trx, 'measure', cutId);
    await endMeasuring(trx, cutId, { trouble: 'Stopped by a person' });
    await announce(trx, 'video', videoId);
  });
}

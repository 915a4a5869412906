import { object, string } from 'yup';
import { database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { askForJobsAnew, retryJobs } from '@/store/queue/jobs';
import { cutById } from '@/store/record/cuts';
import { measureAgain } from '@/store/record/measurements';
import { DeskError, found } from '../desk-error';

const againShape = object({ kind: string().oneOf(['read', 'measure']).required() }).noUnknown();

/** Has work on a cut done again that could not be done. @throws DeskError where it is being done, or is done */
export async function workOnCutAgain(cutId: string, input: unknown): Promise<void> {
  const { kind } = await againShape.validate(input, { stripUnknown: false });
  const cut = found(await cutById(database(), cutId), 'file');
  await transaction(async (trx) => {
    if (kind === 'read') {
      const asked = await retryJobs(trx, { kind, subjects: [cutId] });
      if (asked === 0) throw new DeskError('not now', 'The file is being read, or has been. Look again.');
    } else {
      if (!(await measureAgain(trx, cutId))) throw new DeskError('not now', 'The file is being looked over already.');
      await askForJobsAnew(trx, 'measure', [cutId]);
    }
    await announce(trx, 'video', cut.videoId);
  });
}

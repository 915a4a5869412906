import { object, string } from 'yup';
import { type Database, database, transaction } from '@/store/database';
import { hastenPacking } from '@/store/drop/claims';
import { announce } from '@/store/feed';
import { removeAskedFiles } from '@/store/files/removals';
import {
  deleteMadeFile,
  endRendition,
  isRenditionNeeded,
  renditionAgain,
  renditionById,
} from '@/store/files/renditions';
import { askForJobsAnew, cancelJob, hastenJob, holdJob } from '@/store/queue/jobs';
import { cutById } from '@/store/record/cuts';
import { DeskError, found } from '../desk-error';

/** What a person may do with a file that is being made. */
export const RENDITION_ACTIONS = ['hold', 'go on', 'first', 'stop', 'again', 'delete'] as const;
export type RenditionAction = (typeof RENDITION_ACTIONS)[number];

const actionShape = object({ action: string().oneOf(RENDITION_ACTIONS).required() }).noUnknown();

/** Why a file is not made that a person has stopped. */
const STOPPED_BY_A_PERSON = 'Stopped by a person';

/** Does with a file that is being made what a person asks for. @throws DeskError where it is not being made now */
export async function actOnRendition(id: string, input: unknown): Promise<void> {
  const { action } = await actionShape.validate(input, { stripUnknown: false });
  const rendition = found(await renditionById(database(), id), 'file');
  const { videoId } = found(await cutById(database(), rendition.cutId), 'file');
  await transaction(async (trx) => {
    if (!(await acts[action](trx, id))) {
      throw new DeskError('not now', 'The file is not being made now. Look at it again.');
    }
    await announce(trx, 'video', videoId);
    await hastenPacking(trx, videoId);
  });
  if (action === 'delete') await removeAskedFiles(database());
}

type Act = (trx: Database, id: string) => Promise<boolean>;

const acts: Record<RenditionAction, Act> = {
  hold: (trx, id) => holdJob(trx, 'encode', id, true),
  'go on': (trx, id) => holdJob(trx, 'encode', id, false),
  first: (trx, id) => hastenJob(trx, 'encode', id),
  async stop(trx, id) {
    if ((await renditionById(trx, id))?.state !== 'waiting') return false;
    await cancelJob(trx, 'encode', id);
    await endRendition(trx, id, { trouble: STOPPED_BY_A_PERSON });
    return true;
  },
  async delete(trx, id) {
    const rendition = await renditionById(trx, id);
    if (rendition?.state !== 'ready') return false;
    if (await isRenditionNeeded(trx, id)) {
      throw new DeskError('not now', 'This file is being sent. Delete it once it is at its sites.');
    }
    await deleteMadeFile(trx, rendition);
    return true;
  },
  async again(trx, id) {
    if ((await renditionById(trx, id))?.state !== 'failed') return false;
    await renditionAgain(trx, id);
    await askForJobsAnew(trx, 'encode', [id]);
    return true;
  },
};

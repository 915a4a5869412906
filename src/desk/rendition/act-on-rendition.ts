import { object, string } from 'yup';
import { cutById } from '@/store/cuts';
import { database, transaction } from '@/store/database';
import { hastenPacking } from '@/store/drops';
import { announce } from '@/store/feed';
import { askForJobsAnew, cancelJob, hastenJob, holdJob } from '@/store/jobs';
import { endRendition, renditionAgain, renditionById } from '@/store/renditions';
import { DeskError, found } from '../desk-error';

/** What a person may do with a file that is being made. */
export const RENDITION_ACTIONS = ['hold', 'go on', 'first', 'stop', 'again'] as const;
export type RenditionAction = (typeof RENDITION_ACTIONS)[number];

const actionShape = object({ action: string().oneOf(RENDITION_ACTIONS).required() }).noUnknown();

/** Why a file is not made that a person has stopped. */
export const STOPPED_BY_A_PERSON = 'Stopped by a person';

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
}

type Act = (trx: Parameters<typeof endRendition>[0], id: string) => Promise<boolean>;

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
  async again(trx, id) {
    if ((await renditionById(trx, id))?.state !== 'failed') return false;
    await renditionAgain(trx, id);
    await askForJobsAnew(trx, 'encode', [id]);
    return true;
  },
};

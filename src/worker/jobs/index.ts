import type { JobKind } from '@/store/queue/jobs';
import { manyWork } from './do-many';
import { early } from './early';
import { encode } from './encode';
import { give } from './give';
import { inbox } from './inbox';
import type { JobWork } from './job-work';
import { keepPlaylists } from './keep-playlists';
import { makePicture } from './make-picture';
import { measureCut } from './measure-cut';
import { planEarly } from './plan-early';
import { readCut } from './read-cut';
import { readLive } from './read-live';
import { tellDue } from './tell';
import { tidy } from './tidy';
import { watchHeld } from './watch-held';

/** The work of each kind of job. */
export const JOB_WORK: Record<JobKind, JobWork> = {
  read: readCut,
  measure: measureCut,
  encode,
  early,
  'plan early': planEarly,
  picture: makePicture,
  playlists: keepPlaylists,
  'read live': readLive,
  'watch held': watchHeld,
  give,
  tell: tellDue,
  many: manyWork,
  inbox,
  tidy,
};

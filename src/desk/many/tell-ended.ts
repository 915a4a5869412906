import type { Database } from '@/store/database';
import { type ManyAct, resultsOf } from '@/store/record/many-acts';
import { tellOfHouse } from '../notices/tell';
import type { Act } from './many-act';

/** Whoever asks for less than that is still there to see it done. */
const LONG_MILLISECONDS = 60_000;
const MOST_NAMED = 3;

const DOING: Record<Act['do'], string> = {
  send: 'Sending',
  open: 'Opening',
  'try again': 'Trying again',
  delete: 'Deleting',
  series: 'Putting in a series',
  set: 'Changing',
  tags: 'Adding tags to',
  playlist: 'Adding to a playlist',
};

const videosOf = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'video' : 'videos'}`;

/** Tells that an act on many has ended, where something could not be done or nobody has waited for it. */
export async function tellEnded(trx: Database, { id, act, videoIds, askedAt }: ManyAct, now: Date): Promise<void> {
  const failed = (await resultsOf(trx, id)).filter(({ why }) => why !== undefined);
  const of = { about: `${DOING[(act as Act).do]}: ${videosOf(videoIds.length)}`, page: '/' };
  if (failed.length === 0) {
    const isLong = now.getTime() - askedAt.getTime() >= LONG_MILLISECONDS;
    if (isLong) await tellOfHouse(trx, of, 'done', 'All of them are done.');
    return;
  }
  const named = failed.slice(0, MOST_NAMED).map(({ title, why }) => `“${title || 'Without a title'}”: ${why}`);
  const more = failed.length > MOST_NAMED ? ` And ${failed.length - MOST_NAMED} more; the Board lists them.` : '';
  await tellOfHouse(trx, of, 'needs you', `Not done for ${videosOf(failed.length)}. ${named.join('; ')}.${more}`);
}

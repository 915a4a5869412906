import { now } from './clock';
import type { Database } from './database';

/** The words that a site was given at one time, as JSON. */
export interface GivenWords {
  id: number;
  dropId: string;
  at: Date;
  words: string;
}

const KEPT_OF_DROP = 100;

/** Notes the words that a drop's site was given; nothing where they are those of before. */
export async function noteGiven(db: Database, dropId: string, words: string): Promise<void> {
  const last: { words: string } | undefined = await db('givenWords')
    .where({ dropId })
    .orderBy('id', 'desc')
    .first('words');
  if (last?.words === words) return;
  await db('givenWords').insert({ dropId, at: now(db), words });
  const oldest: { id: number } | undefined = await db('givenWords')
    .where({ dropId })
    .orderBy('id', 'desc')
    .offset(KEPT_OF_DROP)
    .first('id');
  if (oldest) await db('givenWords').where({ dropId }).where('id', '<=', oldest.id).delete();
}

/** The words that a drop's site was given, the newest first. */
export async function givenTo(db: Database, dropId: string): Promise<GivenWords[]> {
  return db('givenWords').where({ dropId }).orderBy('id', 'desc').select('id', 'dropId', 'at', 'words');
}

import type { Database } from '@/store/database';
import { isSealedAnew, seal, unseal } from '@/store/vault';

const ROW = { id: 1 };

/** The secret part of the address at which calendar programs read what opens; undefined where there is none. */
export async function calendarToken(db: Database): Promise<string | undefined> {
  const row: { sealedToken: string } | undefined = await db('calendarAddress').where(ROW).first('sealedToken');
  return row && unseal(row.sealedToken);
}

/** Puts another in its place: the one before leads nowhere from then on. */
export async function keepCalendarToken(db: Database, token: string): Promise<void> {
  const sealedToken = seal(token);
  await db('calendarAddress')
    .insert({ ...ROW, sealedToken })
    .onConflict('id')
    .merge(['sealedToken']);
}

/** Takes it away. */
export async function deleteCalendarToken(db: Database): Promise<void> {
  await db('calendarAddress').where(ROW).delete();
}

/** Seals it with the newest key, where it is sealed with an older one. */
export async function sealCalendarTokenAnew(db: Database): Promise<void> {
  const row: { sealedToken: string } | undefined = await db('calendarAddress').where(ROW).first('sealedToken');
  if (!row || isSealedAnew(row.sealedToken)) return;
  const sealedToken = seal(unseal(row.sealedToken));
  await db('calendarAddress')
    .where({ ...ROW, sealedToken: row.sealedToken })
    .update({ sealedToken });
}

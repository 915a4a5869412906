import { createHash } from 'node:crypto';
import { AS_IT_IS, type MadeBefore, type Recipe, recipeText } from '@/core/renditions';
import { now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import { type Habit, videosOfHabit } from '@/store/files/disk-use';
import { askToRemoveFiles } from '@/store/files/removals';
import { newId } from '@/store/ids';

/** Gone: it was made, and its file was deleted since. */
export type RenditionState = 'waiting' | 'ready' | 'failed' | 'gone';

/** A file made from a cut for sites; `settings` names how, 'as it is' being the cut itself. Drops share renditions. */
export interface Rendition {
  id: string;
  cutId: string;
  settings: string;
  /** Undefined for the cut as it is, and for one with other chapters inside. */
  recipe: Recipe | undefined;
  state: RenditionState;
  /** Why it could not be made. */
  trouble: string | undefined;
  fileKey: string;
  size: number;
  digest: string;
  /** Bytes that were expected before it was made. */
  expected: number | undefined;
  /** How long it took to make. */
  seconds: number | undefined;
  /** By how many milliseconds its sound is another than the cut's, around the parts that were to be; undefined without such. */
  soundAround: number | undefined;
  madeAt: Date | undefined;
}

type Row = Omit<Rendition, 'recipe' | 'trouble' | 'expected' | 'seconds' | 'soundAround' | 'madeAt'> & {
  recipe: string | null;
  trouble: string | null;
  expected: string | null;
  seconds: number | null;
  soundAround: number | null;
  madeAt: Date | null;
};

const columns = [
  ...['id', 'cutId', 'settings', 'recipe', 'state', 'trouble', 'fileKey', 'size', 'digest'],
  ...['expected', 'seconds', 'soundAround', 'madeAt'],
];

const fromRow = (row: Row): Rendition => ({
  ...row,
  recipe: fromJson<Recipe>(row.recipe),
  trouble: row.trouble ?? undefined,
  expected: fromJson<number>(row.expected),
  seconds: row.seconds ?? undefined,
  soundAround: row.soundAround ?? undefined,
  madeAt: row.madeAt ?? undefined,
});

export async function renditionById(db: Database, id: string): Promise<Rendition | undefined> {
  const row: Row | undefined = await db('renditions').where({ id }).first(columns);
  return row && fromRow(row);
}

/** The digests of the cuts that renditions were made from, by the renditions' ids. */
export async function cutDigestsOf(db: Database, ids: readonly string[]): Promise<Map<string, string>> {
  const rows: { id: string; digest: string | null }[] = await db('renditions as r')
    .join('cuts as c', 'c.id', 'r.cutId')
    .select('r.id', 'c.digest')
    .whereIn('r.id', [...new Set(ids)]);
  return new Map(rows.flatMap(({ id, digest }): [string, string][] => (digest ? [[id, digest]] : [])));
}

/** The rendition of a cut with these settings, where there is one. */
export async function renditionWith(db: Database, cutId: string, settings: string): Promise<Rendition | undefined> {
  const row: Row | undefined = await db('renditions').where({ cutId, settings }).first(columns);
  return row && fromRow(row);
}

/** Every rendition that is made of some cuts by a recipe, the oldest first. */
export async function renditionsOf(db: Database, cutIds: readonly string[]): Promise<Rendition[]> {
  const rows: Row[] = await db('renditions')
    .whereIn('cutId', [...cutIds])
    .whereNotNull('recipe')
    .orderBy('id')
    .select(columns);
  return rows.map(fromRow);
}

/** The rendition of a cut with these settings, made known where it is new. */
export async function keepRendition(
  db: Database,
  rendition: Pick<Rendition, 'cutId' | 'settings' | 'fileKey' | 'size' | 'digest'>,
): Promise<Rendition> {
  await db('renditions')
    .insert({ id: newId(), ...rendition, createdAt: new Date() })
    .onConflict(['cutId', 'settings'])
    .ignore();
  return (await renditionWith(db, rendition.cutId, rendition.settings)) as Rendition;
}

/** What names a recipe among the renditions of a cut. */
export const settingsOf = (recipe: Recipe | undefined): string =>
  recipe ? createHash('sha256').update(recipeText(recipe)).digest('hex') : AS_IT_IS;

/** The rendition of a cut by a recipe, to be made where it is new. @param expected bytes */
export async function planRendition(
  db: Database,
  cutId: string,
  recipe: Recipe,
  about: { expected: number; encoder: string; megapixels: number },
): Promise<Rendition> {
  const [id, settings] = [newId(), settingsOf(recipe)];
  await db('renditions')
    .insert({
      ...{ id, cutId, settings, recipe: toJson(recipe), state: 'waiting' },
      ...{ fileKey: `renditions/${id}`, size: 0, digest: '', createdAt: new Date() },
      ...{ ...about, expected: toJson(about.expected) },
    })
    .onConflict(['cutId', 'settings'])
    .ignore();
  return (await renditionWith(db, cutId, settings)) as Rendition;
}

/** Ends the making of a rendition: with its file, or with why it could not be made. */
export async function endRendition(
  db: Database,
  id: string,
  ended: (Pick<Rendition, 'size' | 'digest' | 'soundAround'> & { seconds: number }) | { trouble: string },
): Promise<void> {
  const fields =
    'trouble' in ended
      ? { state: 'failed', trouble: ended.trouble.slice(0, 1000) }
      : { ...ended, soundAround: ended.soundAround ?? null, state: 'ready', trouble: null, madeAt: now(db) };
  await db('renditions').where({ id }).update(fields);
}

/** Takes the file of a rendition off the disk; it is made again where it is needed again. */
export async function deleteMadeFile(trx: Database, { id, fileKey }: Pick<Rendition, 'id' | 'fileKey'>): Promise<void> {
  await askToRemoveFiles(trx, [fileKey]);
  await trx('renditions').where({ id, state: 'ready' }).update({ state: 'gone' });
}

/** Whether the bytes of a file are still to go to a site: of a drop, or early. */
export async function isRenditionNeeded(db: Database, id: string): Promise<boolean> {
  const drops: { state: string; at: string | null }[] = await db('drops')
    .where({ renditionId: id })
    .select('state', { at: db.raw(`JSON_VALUE(??, '$.at')`, ['snag']) });
  const early = await db('earlyUploads')
    .where({ renditionId: id })
    .whereNotNull('dropId')
    .whereRaw('?? < ??', ['bytesSent', 'bytesTotal'])
    .first('id');
  const carries = drops.some(({ state, at }) =>
    [state, state === 'snag' ? at : ''].some((each) => each === 'packing' || each === 'landing'),
  );
  return carries || early !== undefined;
}

/** Files that were made for drops that are all live. */
export async function renditionsAllLive(db: Database, habit: Habit): Promise<(Rendition & { videoId: string })[]> {
  const rows: (Row & { videoId: string })[] = await db('renditions as r')
    .join('cuts as c', 'c.id', 'r.cutId')
    .where('r.state', 'ready')
    .whereNotNull('r.recipe')
    .whereIn('c.videoId', videosOfHabit(db, habit))
    .whereExists(db('drops').whereRaw('?? = ??', ['drops.rendition_id', 'r.id']))
    .whereNotExists(db('drops').whereRaw('?? = ??', ['drops.rendition_id', 'r.id']).whereNot('drops.state', 'live'))
    .select([...columns.map((column) => `r.${column}`), 'c.videoId']);
  return rows.map((row) => ({ ...fromRow(row), videoId: row.videoId }));
}

/** Has a rendition wait to be made once more. */
export async function renditionAgain(db: Database, id: string): Promise<void> {
  await db('renditions').where({ id }).update({ state: 'waiting', trouble: null });
}

/** How files that this installation made last went, the newest first. */
export async function madeBefore(db: Database, most = 60): Promise<MadeBefore[]> {
  const rows: { encoder: string; megapixels: number; seconds: number; expected: string; size: number }[] = await db(
    'renditions',
  )
    .where({ state: 'ready' })
    .whereNotNull('madeAt')
    .orderBy('madeAt', 'desc')
    .limit(most)
    .select('encoder', 'megapixels', 'seconds', 'expected', 'size');
  return rows.map((row) => ({ ...row, expected: Number(row.expected) }));
}

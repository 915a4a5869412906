import type { Fraction } from '@/core/time';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';

/** A picture that can be a video's thumbnail; `size` in bytes, `digest` SHA-256 in hexadecimal. */
export interface Picture {
  id: string;
  videoId: string;
  fileKey: string;
  type: string;
  width: number;
  height: number;
  size: number;
  digest: string;
  source: 'file' | 'frame';
  /** Of a frame: exact seconds of the cut at which it stands. */
  moment: Fraction | undefined;
  /** Whether a layer's habit made it, and not a person. */
  byHabit: boolean;
  /** Of the same picture in another shape: the id of the one that was chosen. */
  formOf: string | undefined;
}

type Row = Omit<Picture, 'moment' | 'byHabit' | 'formOf'> & {
  moment: string | null;
  byHabit: number;
  formOf: string | null;
};

const fromRow = (row: Row): Picture => ({
  ...row,
  moment: fromJson<Fraction>(row.moment),
  byHabit: row.byHabit === 1,
  formOf: row.formOf ?? undefined,
});

const columns = [
  ...['id', 'videoId', 'fileKey', 'type', 'width', 'height', 'size', 'digest', 'source', 'moment'],
  ...['byHabit', 'formOf'],
];

/** Keeps what is known of a picture; its id is returned. */
export async function makePicture(db: Database, picture: Omit<Picture, 'id'>): Promise<string> {
  const id = newId();
  await db('pictures').insert({ id, ...picture, moment: toJson(picture.moment), createdAt: new Date() });
  return id;
}

export async function pictureById(db: Database, id: string): Promise<Picture | undefined> {
  const row: Row | undefined = await db('pictures').where({ id }).first(columns);
  return row && fromRow(row);
}

/** The pictures named, by id. */
export async function picturesById(db: Database, ids: readonly string[]): Promise<Map<string, Picture>> {
  if (ids.length === 0) return new Map();
  const rows: Row[] = await db('pictures')
    .select(columns)
    .whereIn('id', [...ids]);
  return new Map(rows.map((row) => [row.id, fromRow(row)]));
}

/** The same pictures in other shapes, by the ids of those that were chosen. */
export async function formsOf(db: Database, ids: readonly string[]): Promise<Map<string, Picture[]>> {
  if (ids.length === 0) return new Map();
  const rows: Row[] = await db('pictures')
    .select(columns)
    .whereIn('formOf', [...ids])
    .orderBy('id');
  const forms = new Map<string, Picture[]>();
  for (const picture of rows.map(fromRow)) {
    const id = picture.formOf ?? '';
    forms.set(id, [...(forms.get(id) ?? []), picture]);
  }
  return forms;
}

/**
 * Forgets pictures that a habit made of a video and that nothing leads to any more: neither the record nor its history.
 * The keys of their files are returned.
 */
export async function forgetOldHabits(db: Database, videoId: string): Promise<string[]> {
  const rows: { id: string; fileKey: string; formOf: string | null }[] = await db('pictures')
    .select('id', 'fileKey', 'formOf')
    .where({ videoId, byHabit: true });
  const video: { pictureId: string | null } | undefined = await db('videos').where({ id: videoId }).first('pictureId');
  const history: { before: string; after: string }[] = await db('changes')
    .select('before', 'after')
    .where({ subject: videoId })
    .whereIn('field', ['pictureId', 'several']);
  const isLedTo = (id: string) =>
    video?.pictureId === id || history.some(({ before, after }) => before.includes(id) || after.includes(id));
  const old = rows.filter(({ id, formOf }) => !isLedTo(formOf ?? id));
  await db('pictures')
    .whereIn(
      'id',
      old.map(({ id }) => id),
    )
    .delete();
  return old.map(({ fileKey }) => fileKey);
}

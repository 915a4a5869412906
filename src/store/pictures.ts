import type { Fraction } from '@/core/time';
import { type Database, fromJson, toJson } from './database';
import { newId } from './ids';

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
}

type Row = Omit<Picture, 'moment' | 'byHabit'> & { moment: string | null; byHabit: number };

const fromRow = (row: Row): Picture => ({
  ...row,
  moment: fromJson<Fraction>(row.moment),
  byHabit: row.byHabit === 1,
});

const columns = [
  ...['id', 'videoId', 'fileKey', 'type', 'width', 'height', 'size', 'digest', 'source', 'moment'],
  'byHabit',
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
  const rows: Row[] = await db('pictures')
    .select(columns)
    .whereIn('id', [...ids]);
  return new Map(rows.map((row) => [row.id, fromRow(row)]));
}

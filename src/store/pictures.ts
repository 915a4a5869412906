import type { Database } from './database';
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
}

const columns = ['id', 'videoId', 'fileKey', 'type', 'width', 'height', 'size', 'digest', 'source'];

/** Keeps what is known of a picture; its id is returned. */
export async function makePicture(db: Database, picture: Omit<Picture, 'id'>): Promise<string> {
  const id = newId();
  await db('pictures').insert({ id, ...picture, createdAt: new Date() });
  return id;
}

export async function pictureById(db: Database, id: string): Promise<Picture | undefined> {
  return db('pictures').where({ id }).first(columns);
}

/** The pictures named, by id. */
export async function picturesById(db: Database, ids: readonly string[]): Promise<Map<string, Picture>> {
  const rows: Picture[] = await db('pictures')
    .select(columns)
    .whereIn('id', [...ids]);
  return new Map(rows.map((row) => [row.id, row]));
}

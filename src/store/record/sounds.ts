import type { Fraction } from '@/core/time';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';

/** A sound that may take the place of a part of a video's own; `size` in bytes. */
export interface Sound {
  id: string;
  videoId: string;
  fileKey: string;
  fileName: string;
  /** Exact seconds. */
  duration: Fraction;
  size: number;
}

const columns = ['id', 'videoId', 'fileKey', 'fileName', 'duration', 'size'];

/** Keeps what is known of a sound; its id is returned. */
export async function makeSound(db: Database, sound: Omit<Sound, 'id'>): Promise<string> {
  const id = newId();
  await db('sounds').insert({ id, ...sound, duration: toJson(sound.duration), createdAt: new Date() });
  return id;
}

/** The sounds named. */
export async function soundsById(db: Database, ids: readonly string[]): Promise<Sound[]> {
  const rows: (Omit<Sound, 'duration'> & { duration: string })[] = await db('sounds')
    .select(columns)
    .whereIn('id', [...ids]);
  return rows.map((row) => ({ ...row, duration: fromJson<Fraction>(row.duration) as Fraction }));
}

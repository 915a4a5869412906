import { type ChapterChoice, NO_CHOICE, PLAIN_TIME_LINE, type TimeLine } from '@/core/chapters';
import { type Declarations, PLAIN_DECLARATIONS } from '@/core/declarations';
import type { Privacy } from '@/core/delivery';
import { type Database, fromJson, toJson } from './database';
import { newId } from './ids';

/** A video's record: what is set on it. */
export interface Video {
  id: string;
  title: string;
  titleFrom: 'file' | 'person';
  description: string;
  tags: string[];
  privacy: Privacy;
  declarations: Declarations;
  chapterChoice: ChapterChoice;
  timeLine: TimeLine;
  /** Counts the changes of its markers, so that a page knows whether it has the newest. */
  markersVersion: number;
  pictureId: string | undefined;
  createdAt: Date;
  updatedAt: Date;
}

const JSON_FIELDS = ['tags', 'declarations', 'chapterChoice', 'timeLine'] as const;
type JsonField = (typeof JSON_FIELDS)[number];

interface Row extends Omit<Video, JsonField | 'pictureId'>, Record<JsonField, string | null> {
  pictureId: string | null;
}

const fromRow = (row: Row): Video => ({
  ...row,
  tags: fromJson<string[]>(row.tags) ?? [],
  declarations: { ...PLAIN_DECLARATIONS, ...fromJson<Partial<Declarations>>(row.declarations) },
  chapterChoice: fromJson<ChapterChoice>(row.chapterChoice) ?? NO_CHOICE,
  timeLine: fromJson<TimeLine>(row.timeLine) ?? PLAIN_TIME_LINE,
  pictureId: row.pictureId ?? undefined,
});

/** Makes a record whose title came from its file's name; its id is returned. */
export async function makeVideo(db: Database, title: string): Promise<string> {
  const id = newId();
  const now = new Date();
  await db('videos').insert({
    id,
    title,
    titleFrom: 'file',
    description: '',
    tags: '[]',
    privacy: 'private',
    createdAt: now,
    updatedAt: now,
  });
  return id;
}

/** One record; with `lock`, changes of others wait until the transaction ends. */
export async function videoById(db: Database, id: string, lock = false): Promise<Video | undefined> {
  const query = db('videos').where({ id }).first();
  const row: Row | undefined = await (lock ? query.forUpdate() : query);
  return row && fromRow(row);
}

/** The records named, in no order. */
export async function videosById(db: Database, ids: readonly string[]): Promise<Video[]> {
  const rows: Row[] = await db('videos').whereIn('id', [...ids]);
  return rows.map(fromRow);
}

export async function allVideos(db: Database): Promise<Video[]> {
  return (await db<Row>('videos').select().orderBy('id', 'desc')).map((row) => fromRow(row as Row));
}

/** Sets fields of a record. */
export async function setVideo(
  db: Database,
  id: string,
  fields: Partial<Omit<Video, 'id' | 'createdAt' | 'updatedAt'>>,
): Promise<void> {
  const entries = Object.entries(fields).map(([field, value]) => {
    const json = (JSON_FIELDS as readonly string[]).includes(field);
    return [field, json ? toJson(value) : (value ?? null)];
  });
  await db('videos')
    .where({ id })
    .update({ ...Object.fromEntries(entries), updatedAt: new Date() });
}

/** Deletes a record with everything that hangs on it. */
export async function deleteVideo(db: Database, id: string): Promise<void> {
  await db('videos').where({ id }).delete();
}

import type { CaptionFinding } from '@/core/captions';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';

/** Captions of a video in one language, kept as WebVTT. */
export interface CaptionTrack {
  id: string;
  videoId: string;
  /** A language tag (BCP 47). */
  language: string;
  fileName: string;
  findings: CaptionFinding[];
}

type Row = Omit<CaptionTrack, 'findings'> & { findings: string };

/** Keeps captions, not in use yet; their id is returned. */
export async function makeCaptions(
  db: Database,
  track: Omit<CaptionTrack, 'id'> & { webvtt: string },
): Promise<string> {
  const id = newId();
  const row = { ...track, id, findings: toJson(track.findings), inUse: false, createdAt: new Date() };
  await db('captions').insert(row);
  return id;
}

/** The captions of a video that are in use, in the order in which they came. */
export async function captionsOf(db: Database, videoId: string): Promise<CaptionTrack[]> {
  return captionsOfVideos(db, [videoId]);
}

/** The captions of the videos named that are in use, in the order in which they came. */
export async function captionsOfVideos(db: Database, videoIds: readonly string[]): Promise<CaptionTrack[]> {
  const rows: Row[] = await db('captions')
    .select('id', 'videoId', 'language', 'fileName', 'findings')
    .whereIn('videoId', [...videoIds])
    .andWhere({ inUse: true })
    .orderBy('id');
  return rows.map((row) => ({ ...row, findings: fromJson<CaptionFinding[]>(row.findings) ?? [] }));
}

/** Uses these captions of a video and no others; the others stay, so that a change can be taken back. */
export async function chooseCaptions(db: Database, videoId: string, ids: readonly string[]): Promise<void> {
  await db('captions').where({ videoId }).update({ inUse: false });
  await db('captions')
    .where({ videoId })
    .whereIn('id', [...ids])
    .update({ inUse: true });
}

/** The text of captions, as WebVTT. */
export async function captionText(db: Database, id: string): Promise<string | undefined> {
  const row = await db('captions').where({ id }).first('webvtt');
  return row?.webvtt;
}

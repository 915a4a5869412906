import { type Chapter, chaptersFromMarkers, startAtZero } from '@/core/chapters';
import { type Missing, missingFor, type ReadinessInput } from '@/core/drop';
import { ZERO } from '@/core/time';
import type { SiteProfile } from '@/sites/contract';
import { type Cut, newestCuts } from '@/store/cuts';
import type { Database } from '@/store/database';
import { type Marker, markersOf } from '@/store/markers';
import { type Picture, pictureById } from '@/store/pictures';
import { type Video, videoById } from '@/store/videos';
import { found } from './desk-error';

/** A video's record with everything that is worked out from it. */
export interface VideoRecord {
  video: Video;
  cut: Cut | undefined;
  markers: Marker[];
  chapters: Chapter[];
  picture: Picture | undefined;
}

/** An opening chapter shorter than this would break sites' rules itself (common practice, no source). */
const SHORTEST_OPENING_SECONDS = 10;

/** Reads a video's whole record. */
export async function recordOf(db: Database, videoId: string): Promise<VideoRecord> {
  const video = found(await videoById(db, videoId), 'video');
  const cut = (await newestCuts(db, [videoId])).get(videoId);
  const markers = await markersOf(db, videoId);
  const picture = video.pictureId ? await pictureById(db, video.pictureId) : undefined;
  const range = { from: ZERO, to: cut?.facts?.duration };
  const { chapters: chosen } = chaptersFromMarkers(markers, video.chapterColours, range);
  const chapters = startAtZero(chosen, SHORTEST_OPENING_SECONDS);
  return { video, cut, markers, chapters, picture };
}

/** What readiness is judged by, for one record. */
export function readinessInput({ video, cut, chapters, picture }: VideoRecord): ReadinessInput {
  return {
    words: video,
    chapters,
    facts: cut?.facts,
    cutRefused: cut ? cut.refusal : 'There is no cut yet',
    picture,
  };
}

/** What keeps a record from going to a site. */
export function missingAt(record: VideoRecord, profile: SiteProfile): Missing[] {
  return missingFor(readinessInput(record), profile);
}

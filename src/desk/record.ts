import { type Chapter, chaptersFromMarkers, exportedRange, type LeftOut } from '@/core/chapters';
import { type Missing, missingFor, type ReadinessInput } from '@/core/drop';
import type { SiteProfile } from '@/sites/contract';
import { type Cut, cutInUse, cutsOf } from '@/store/cuts';
import type { Database } from '@/store/database';
import { type Marker, markersOf } from '@/store/markers';
import { type Picture, pictureById } from '@/store/pictures';
import { type Video, videoById } from '@/store/videos';
import { found } from './desk-error';

/** A video's record with everything that is worked out from it. */
export interface VideoRecord {
  video: Video;
  /** The cut in use. */
  cut: Cut | undefined;
  /** All cuts, oldest first. */
  cuts: Cut[];
  markers: Marker[];
  chapters: Chapter[];
  /** Chosen markers that become no chapter, with why. */
  leftOut: LeftOut[];
  picture: Picture | undefined;
}

/** Reads a video's whole record. */
export async function recordOf(db: Database, videoId: string): Promise<VideoRecord> {
  const video = found(await videoById(db, videoId), 'video');
  const cuts = (await cutsOf(db, [videoId])).get(videoId) ?? [];
  const cut = cutInUse(cuts);
  const markers = await markersOf(db, videoId);
  const picture = video.pictureId ? await pictureById(db, video.pictureId) : undefined;
  const range = exportedRange(video.timeLine, cut?.facts?.duration);
  const { chapters, leftOut } = chaptersFromMarkers(markers, video.chapterChoice, range);
  return { video, cut, cuts, markers, chapters, leftOut, picture };
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

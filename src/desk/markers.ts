import { type MarkerFinding, readMarkerFile } from '@/core/markers';
import { canDropFrames, rate } from '@/core/time';
import { newestCuts } from '@/store/cuts';
import { database } from '@/store/database';
import { videoById } from '@/store/videos';
import { found } from './desk-error';
import { changeMarkers } from './edit-video';

/** What came of a marker file. */
export interface MarkerImport {
  format: string;
  markers: number;
  findings: MarkerFinding[];
}

/**
 * Takes the markers of a file onto a video's time line, in the place of those it had. Where the video has no choice of
 * colours yet, the only colour, or the most named one, is taken to be for viewers.
 * @throws MarkerFileError naming the line that cannot be read
 */
export async function importMarkers(videoId: string, bytes: Uint8Array): Promise<MarkerImport> {
  const db = database();
  const video = found(await videoById(db, videoId), 'video');
  const cut = (await newestCuts(db, [videoId])).get(videoId);
  const exact = cut?.facts?.video.rate ?? { num: 25, den: 1 };
  // An EDL says with FCM whether it counts drop-frame; without that line, 29.97 is counted as editors mostly do.
  const file = readMarkerFile(bytes, { rate: rate(exact.num, exact.den, canDropFrames(exact)) });
  const colours = new Set(file.markers.map((marker) => marker.colour));
  const chosen = video.chapterColours.some((colour) => colours.has(colour)) ? undefined : [...colours].slice(0, 1);
  await changeMarkers(videoId, file.markers, chosen && colours.size === 1 ? chosen : chosen && []);
  return { format: file.format, markers: file.markers.length, findings: file.findings };
}

import {
  type Chapter,
  type ChapterChoice,
  chaptersFromMarkers,
  type ExportedRange,
  exportedRange,
  type LeftOut,
  NO_CHOICE,
} from '@/core/chapters';
import { fieldInForce } from '@/core/defaults';
import type { SiteProfile } from '@/sites/contract';
import type { Database } from '@/store/database';
import { type CaptionTrack, captionsOfVideos } from '@/store/record/captions';
import { type Cut, cutInUse, cutsOf } from '@/store/record/cuts';
import { type Marker, markersByVideo } from '@/store/record/markers';
import { formsOf, type Picture, picturesById } from '@/store/record/pictures';
import { type Video, videosById } from '@/store/record/videos';
import type { Channel } from '@/store/site/channels';
import { found } from '../desk-error';
import { type KeptLayers, keptLayers, layersAt } from '../layers/layers';

/** A video's record with everything that is worked out from it. */
export interface VideoRecord {
  video: Video;
  /** The cut in use. */
  cut: Cut | undefined;
  /** All cuts, oldest first. */
  cuts: Cut[];
  markers: Marker[];
  /** The part of the time line that was exported. */
  range: ExportedRange;
  /** Which markers are for viewers, as the video and its series say. */
  choice: ChapterChoice;
  chapters: Chapter[];
  /** Chosen markers that become no chapter, with why. */
  leftOut: LeftOut[];
  picture: Picture | undefined;
  /** The same picture in other shapes. */
  forms: Picture[];
  captions: CaptionTrack[];
  layers: KeptLayers;
}

/** Reads a video's whole record. */
export async function recordOf(db: Database, videoId: string): Promise<VideoRecord> {
  return found((await recordsOf(db, [videoId])).get(videoId), 'video');
}

/** Reads the whole records of videos, in a handful of queries however many there are. */
export async function recordsOf(db: Database, videoIds: readonly string[]): Promise<Map<string, VideoRecord>> {
  const videos = await videosById(db, videoIds);
  const pictureIds = videos.flatMap((video) => video.pictureId ?? []);
  const [layers, cuts, markers, captions, pictures, forms] = await Promise.all([
    keptLayers(db),
    cutsOf(db, videoIds),
    markersByVideo(db, videoIds),
    captionsOfVideos(db, videoIds),
    picturesById(db, pictureIds),
    formsOf(db, pictureIds),
  ]);
  const record = (video: Video): VideoRecord => {
    const ofVideo = { cuts: cuts.get(video.id) ?? [], markers: markers.get(video.id) ?? [] };
    const cut = cutInUse(ofVideo.cuts, video.cutId);
    const range = exportedRange(video.timeLine, cut?.facts?.duration);
    const choice = chapterChoiceOf(video, layers);
    return {
      ...ofVideo,
      video,
      cut,
      layers,
      range,
      choice,
      ...chaptersFromMarkers(ofVideo.markers, choice, range),
      picture: pictures.get(video.pictureId ?? ''),
      forms: forms.get(video.pictureId ?? '') ?? [],
      captions: captions.filter((track) => track.videoId === video.id),
    };
  };
  return new Map(videos.map((video) => [video.id, record(video)]));
}

/** Which markers of a video are for viewers: as a person chose for it, or else by the colours that its series names. */
export function chapterChoiceOf(video: Video, layers: KeptLayers): ChapterChoice {
  if (video.chapterChoice) return video.chapterChoice;
  const colours = fieldInForce('chapterColours', layersAt(layers, video)).value as string[];
  return { ...NO_CHOICE, colours };
}

/** What a channel takes: as its site does, but adverts only where it may earn. */
export function profileAt(profile: SiteProfile, channel: Pick<Channel, 'mayEarn'>): SiteProfile {
  if (channel.mayEarn || !profile.declares) return profile;
  const groups = profile.declares.groups.map(({ name, fields }) => ({
    name,
    fields: fields.filter((field) => field !== 'adverts'),
  }));
  return { ...profile, declares: { ...profile.declares, groups } };
}

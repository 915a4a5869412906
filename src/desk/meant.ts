import type { Privacy } from '@/core/delivery';
import { type Showing, type SiteWords, wordsForSite } from '@/core/drop';
import type { SiteProfile } from '@/sites/contract';
import type { Drop } from '@/store/drops';
import type { VideoRecord } from './record';

/** What a site is meant to get beside the file. */
export interface MeantWords {
  words: SiteWords;
  /** The privacy in which the video stands until it is opened, or 'everyone' where it has been. */
  privacy: Privacy;
  playlists: string[];
  pictureDigest: string | undefined;
  /** All of it as one text, to tell whether anything has changed since it was sent. */
  asText: string;
}

/** What a drop's site is meant to get, from the record as it is now. */
export function meantWords(
  record: VideoRecord,
  drop: Pick<Drop, 'privacy' | 'playlists' | 'liveAt'>,
  profile: SiteProfile,
): MeantWords {
  const { video, chapters, cut, picture } = record;
  const words = wordsForSite(video, chapters, cut?.facts?.duration, profile);
  const wanted = drop.privacy ?? video.privacy;
  // Closed first: a video for everyone waits as private until it is proofed.
  const privacy = drop.liveAt ? 'everyone' : wanted === 'link' ? 'link' : 'private';
  const meant = {
    words,
    privacy,
    playlists: drop.playlists,
    pictureDigest: profile.picture && picture?.digest,
  } as const;
  return { ...meant, asText: JSON.stringify(meant) };
}

/** What proofing expects the site to show. */
export function meantShowing(meant: MeantWords, profile: SiteProfile, fileDigest: string | undefined): Showing {
  return {
    title: profile.title && meant.words.title,
    text: profile.text && meant.words.text,
    tags: profile.tags && meant.words.tags,
    chapters: profile.chapters && meant.words.chapters.length > 0 ? meant.words.chapters : undefined,
    privacy: meant.privacy,
    groups: profile.abilities.groups && meant.playlists,
    pictureDigest: meant.pictureDigest,
    fileDigest,
  };
}

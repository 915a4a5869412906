import type { Privacy } from '@/core/delivery';
import { type Showing, type SiteWords, wordsForSite } from '@/core/drop';
import type { Fraction } from '@/core/time';
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
  /** The moment of the video whose picture stands for it, where the site takes no picture of its own. */
  moment: Fraction | undefined;
  /** Captions, by their ids; what an id stands for never changes. */
  captions: { id: string; language: string }[];
  /** All of it as one text, to tell whether anything has changed since it was sent. */
  asText: string;
}

/** What a drop's site is meant to get, from the record as it is now. */
export function meantWords(
  record: VideoRecord,
  drop: Pick<Drop, 'privacy' | 'own' | 'playlists' | 'liveAt'>,
  profile: SiteProfile,
): MeantWords {
  const { video, chapters, cut, picture, captions } = record;
  const words = wordsForSite(video, drop.own, chapters, cut?.facts?.duration, profile);
  const wanted = drop.privacy ?? video.privacy;
  // Closed first: a video for everyone waits as private until it is proofed.
  const privacy = drop.liveAt ? 'everyone' : wanted === 'link' ? 'link' : 'private';
  const meant = {
    words,
    privacy,
    playlists: drop.playlists,
    pictureDigest: typeof profile.picture === 'object' ? picture?.digest : undefined,
    moment: profile.picture === 'a moment' ? picture?.moment : undefined,
    captions: profile.captions ? captions.map(({ id, language }) => ({ id, language })) : [],
  } as const;
  // By what is wanted, not by how far it is: that it was opened changes nothing of the words.
  return { ...meant, asText: JSON.stringify({ ...meant, privacy: wanted }) };
}

/** What proofing expects the site to show. */
export function meantShowing(meant: MeantWords, profile: SiteProfile, fileDigest: string | undefined): Showing {
  return {
    title: profile.title && meant.words.title,
    text: profile.text && meant.words.text,
    tags: typeof profile.tags === 'object' ? meant.words.tags : undefined,
    chapters: profile.chapters && meant.words.chapters.length > 0 ? meant.words.chapters : undefined,
    // A site that opens by itself may have done so already.
    privacy: profile.opensItself ? undefined : meant.privacy,
    groups: profile.abilities.groups && meant.playlists,
    pictureDigest: meant.pictureDigest,
    fileDigest,
    captions: profile.captions ? meant.captions.map(({ language }) => language) : undefined,
    declared: meant.words.declared,
  };
}

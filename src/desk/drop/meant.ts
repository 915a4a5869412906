import { createHash } from 'node:crypto';
import { type Chapter, chaptersFromMarkers, NO_CHOICE } from '@/core/chapters';
import { type Declarations, declarationsInForce } from '@/core/declarations';
import { type Release, valuesOf } from '@/core/defaults';
import type { CutFacts, Privacy } from '@/core/delivery';
import {
  type End,
  type FittedWords,
  mayGoToEnd,
  privacyBeforeProof,
  type Showing,
  type SiteWords,
  wordsForSite,
} from '@/core/drop';
import type { Framings } from '@/core/framing';
import { isTimed, type Moment } from '@/core/release';
import { type FileSet, lengthWith, movedChapters, nearestMoment, type Remedies } from '@/core/renditions';
import type { Fraction } from '@/core/time';
import type { SiteProfile } from '@/sites/contract';
import type { Channel } from '@/store/channels';
import type { Drop } from '@/store/drops';
import { fileSetAt, framingsAt, inForceAt, playlistsAt, remediesAt, wordsAt } from '../layers/layers';
import { pictureAt } from './picture-at';
import type { VideoRecord } from './record';

/** What a site is meant to get beside the file. */
export interface MeantWords {
  words: SiteWords;
  /** The words with what had no room, and what keeps them from being sent. */
  fitted: FittedWords;
  declarations: Declarations;
  /** Who is to see it in the end. */
  end: End;
  /** What they are told who see it with a password. */
  password: string;
  /** Whether it opens by itself once it is proofed. */
  opensAlone: boolean;
  /** How it comes to be open, where it waits for anything but its check. */
  waitsFor: Exclude<Release, 'by itself'> | undefined;
  /** When it is to open, where that is at a time. */
  opensAt: Moment | undefined;
  /** Hours by which it may open late. */
  lateAtMost: number;
  /** Whether it waits until the site has it in full quality. */
  fullFirst: boolean;
  /** The release as a text, to tell whether it is still what a drop was let go for. */
  releaseKey: string;
  /** Who may see it until it is proofed. */
  privacy: Privacy;
  playlists: string[];
  /** Titles of playlists that the channel has none of. */
  unknownPlaylists: string[];
  pictureDigest: string | undefined;
  /** The moment of the video whose picture stands for it, where the site takes no picture of its own. */
  moment: Fraction | undefined;
  /** Captions, by their ids; what an id stands for never changes. */
  captions: { id: string; language: string }[];
  /** The file settings in force; undefined keeps the file as it is. */
  fileSet: FileSet | undefined;
  /** What is put right in the file; times are those of the cut. */
  remedies: Remedies;
  framings: Framings;
  /** Whether a file is still to go there. */
  needsFile: boolean;
  /** All of it as one text, to tell whether anything has changed since it was sent. */
  asText: string;
}

/** What of a drop its words depend on. */
export type MeantDrop = Pick<Drop, 'own' | 'sentWith' | 'state' | 'chosenPlaylists' | 'confirmedTo'>;

/** The chapters on a channel: where nobody chose for the video, by the colours that hold there. */
function chaptersAt({ video, choice, chapters, markers, range }: VideoRecord, colours: readonly string[]): Chapter[] {
  if (video.chapterChoice || JSON.stringify(choice.colours) === JSON.stringify(colours)) return chapters;
  return chaptersFromMarkers(markers, { ...NO_CHOICE, colours: [...colours] }, range).chapters;
}

/**
 * What a drop's site is meant to get, from the record as it is now, and the layers as they were when it was sent.
 * @param drop undefined where the channel is not ticked
 * @param profile what the channel takes
 */
export function meantWords(
  record: VideoRecord,
  channel: Channel,
  drop: MeantDrop | undefined,
  profile: SiteProfile,
): MeantWords {
  const { video, cut, captions, layers } = record;
  const picture = pictureAt(record, profile);
  const values = valuesOf(inForceAt(layers, video, channel, drop));
  const from = wordsAt(layers, video, channel, drop);
  const chapters = chaptersAt(record, values.chapterColours);
  const remedies = remediesAt(video, drop, cut?.id);
  const facts = cut?.facts;
  const moved = facts ? movedChapters(chapters, remedies, facts) : chapters;
  const fitted = wordsForSite(from, drop?.own ?? {}, moved, facts && lengthWith(remedies, facts), profile);
  const lost = from.missingLinks.map((name) => `There is no link “${name}” on the shelf`);
  const findings = [...fitted.findings, ...lost.map((what) => ({ place: 'template' as const, what }))];
  const end = values.privacy;
  const privacy = privacyBeforeProof(drop?.confirmedTo, end);
  // What nobody else sees has no release.
  const waitsFor = end !== 'private' ? waitFor(values.release, profile) : undefined;
  const opensAt = (waitsFor && isTimed(waitsFor) ? values.opensAt : undefined) ?? undefined;
  const playlists = playlistsAt(layers, values.playlists, channel.id, drop?.chosenPlaylists);
  const meant = {
    words: fitted.words,
    privacy,
    playlists: profile.abilities.groups ? playlists.ids : [],
    pictureDigest: typeof profile.picture === 'object' ? picture?.digest : undefined,
    moment: profile.picture === 'a moment' ? momentIn(picture?.moment, remedies, facts) : undefined,
    captions: profile.captions && values.sendCaptions ? captions.map(({ id, language }) => ({ id, language })) : [],
  } as const;
  return {
    ...meant,
    fileSet: fileSetAt(layers, video, channel, drop),
    remedies,
    framings: framingsAt(video, drop),
    needsFile: !drop || ['draft', 'removed', 'packing'].includes(drop.state),
    fitted: { ...fitted, findings },
    end,
    password: values.password,
    declarations: declarationsInForce(values).declarations,
    waitsFor,
    opensAt,
    lateAtMost: values.lateAtMost,
    fullFirst: values.fullFirst,
    releaseKey: [waitsFor, opensAt?.wall, opensAt?.zone, opensAt?.which].join(' '),
    // A site that opens by itself asks nobody.
    opensAlone: profile.opensItself || !waitsFor,
    unknownPlaylists: profile.abilities.groups ? playlists.unknown : [],
    // By what is wanted, not by how far it is: that it was opened changes nothing of the words.
    asText: JSON.stringify({
      ...meant,
      privacy: end,
      ...(end === 'password' ? { passwordMark: markOf(values.password) } : {}),
      ...(remedies.from ? { from: remedies.from } : {}),
      ...(remedies.without ? { without: remedies.without } : {}),
    }),
  };
}

/** What a drop waits for on a site: where there are no first showings, just for the time. */
function waitFor(release: Release, profile: SiteProfile): MeantWords['waitsFor'] {
  if (release === 'by itself') return undefined;
  return release === 'first showing' && !profile.firstShowings ? 'at a time' : release;
}

/** Tells a password from others; nobody can have it from that. */
const markOf = (password: string): string =>
  createHash('sha256').update(`kettle ${password}`).digest('hex').slice(0, 16);

/** A moment of the cut in the file that is made of it; where it is left off, the nearest that stays. */
function momentIn(moment: Fraction | undefined, remedies: Remedies, facts: CutFacts | undefined): Fraction | undefined {
  return moment && facts ? nearestMoment(moment, remedies, facts) : moment;
}

/** Whether a drop that is proofed may go on to its end, or is held until its moment. */
export function goesToEnd(
  { end, opensAlone, releaseKey }: MeantWords,
  { confirmedTo, openAsked, releasedFor }: Pick<Drop, 'confirmedTo' | 'openAsked' | 'releasedFor'>,
): boolean {
  return mayGoToEnd({ end, opensAlone, confirmedTo, letGo: openAsked || releasedFor === releaseKey });
}

/**
 * What proofing expects the site to show.
 * @param fileDigest SHA-256 of the file that was sent
 */
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

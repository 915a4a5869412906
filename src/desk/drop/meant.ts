import { createHash } from 'node:crypto';
import { type Chapter, chaptersFromMarkers, NO_CHOICE } from '@/core/chapters';
import { type Declarations, declarationsInForce } from '@/core/declarations';
import { valuesOf } from '@/core/defaults';
import type { CutFacts, Privacy } from '@/core/delivery';
import { type FittedWords, mayGoToEnd, privacyBeforeProof, wordsForSite } from '@/core/drop';
import type { Framings } from '@/core/framing';
import { expectedOf, type PartsGiven, type PartsShown, wantedParts } from '@/core/parts';
import { type ReleaseThere, releaseThere } from '@/core/release';
import { type FileSet, lengthWith, movedChapters, nearestMoment, type Remedies } from '@/core/renditions';
import type { Fraction } from '@/core/time';
import type { SiteProfile } from '@/sites/contract';
import type { Drop } from '@/store/drop/shape';
import type { Channel } from '@/store/site/channels';
import { fileSetAt, framingsAt, inForceAt, playlistsAt, remediesAt, wordsAt } from '../layers/layers';
import { pictureAt } from './picture-at';
import type { VideoRecord } from './record';

/** What a site is meant to get beside the file. */
export interface MeantWords extends ReleaseThere {
  /** What it is to get of each part that it has, by what is wanted, not by how far it is. */
  parts: PartsGiven;
  /** The words with what had no room, and what keeps them from being sent. */
  fitted: FittedWords;
  declarations: Declarations;
  /** What they are told who see it with a password. */
  password: string;
  /** Whether it opens by itself once it is proofed. */
  opensAlone: boolean;
  /** Hours by which it may open late. */
  lateAtMost: number;
  /** Whether it waits until the site has it in full quality. */
  fullFirst: boolean;
  /** Who may see it until it is proofed. */
  privacy: Privacy;
  playlists: string[];
  /** Titles of playlists that the channel has none of. */
  unknownPlaylists: string[];
  /** The file settings in force; undefined keeps the file as it is. */
  fileSet: FileSet | undefined;
  /** What is put right in the file; times are those of the cut. */
  remedies: Remedies;
  framings: Framings;
  /** Whether a file is still to go there. */
  needsFile: boolean;
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
  const release = releaseThere(values, profile.firstShowings === true);
  const playlists = playlistsAt(layers, values.playlists, channel.id, drop?.chosenPlaylists);
  const declarations = declarationsInForce(values).declarations;
  const hasGroups = profile.abilities.groups !== undefined;
  const wanted = {
    words: fitted.words,
    declarations,
    pictureDigest: picture?.digest,
    moment: momentIn(picture?.moment, remedies, facts),
    captions: values.sendCaptions ? captionsIn(captions, remedies) : [],
    playlists: hasGroups ? playlists.ids : undefined,
    privacy: end,
    passwordMark: end === 'password' ? markOf(values.password) : undefined,
  };
  return {
    parts: wantedParts(wanted, profile),
    privacy,
    playlists: hasGroups ? playlists.ids : [],
    fileSet: fileSetAt(layers, video, channel, drop),
    remedies,
    framings: framingsAt(video, drop),
    needsFile: !drop || ['draft', 'removed', 'packing'].includes(drop.state),
    fitted: { ...fitted, findings },
    password: values.password,
    declarations,
    ...release,
    lateAtMost: values.lateAtMost,
    fullFirst: values.fullFirst,
    // A site that opens by itself asks nobody.
    opensAlone: profile.opensItself || !release.waitsFor,
    unknownPlaylists: hasGroups ? playlists.unknown : [],
  };
}

/** Tells a password from others; nobody can have it from that. */
const markOf = (password: string): string =>
  createHash('sha256').update(`kettle ${password}`).digest('hex').slice(0, 16);

/** Captions, with what moves them in the file that is sent. */
function captionsIn(captions: VideoRecord['captions'], { from, without }: Remedies): PartsGiven['captions'] & object {
  const moved = from || without ? { moved: JSON.stringify({ from, without }) } : {};
  return captions.map(({ id, language }) => ({ id, language, ...moved }));
}

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
 * @param file SHA-256 of the file that was sent
 */
export function meantShowing(
  { parts, privacy }: MeantWords,
  profile: SiteProfile,
  file: string | undefined,
): PartsShown {
  return expectedOf({ ...parts, privacy: { to: privacy }, ...(file !== undefined && { file }) }, profile);
}

import type { LayerValues } from '@/core/defaults';
import type { Privacy } from '@/core/delivery';
import type { AskedOfSight, DropState, OpenEnd, OwnWords, PutOff, SiteVersion, Snag } from '@/core/drop';
import type { Framings } from '@/core/framing';
import type { Agreed } from '@/core/release';
import type { FileSet, MendsOfCut, RemediesOfCut } from '@/core/renditions';
import type { Shelf } from '@/core/words';

/** How far the site is with a drop, in its own words, `fraction` between 0 and 1 where it tells. */
export interface DropProgress {
  says: string;
  fraction?: number;
  bytesPerSecond?: number;
  secondsLeft?: number;
}

/** A live video that stays at the site until one with a better file takes its place. */
export interface FormerVideo {
  siteVideoId: string;
  link: string;
  openedTo: Privacy | undefined;
  renditionId: string | undefined;
  /** Of the parts that it was given (drop_parts). */
  round: number;
  sentWith: SentWith | undefined;
  /** ISO 8601 in UTC. */
  liveAt: string | undefined;
  /** What becomes of it then: its file is swapped, so that the link stays; or it is closed, or removed. */
  ends: 'swap' | 'close' | 'remove';
}

/** How fast the line was at a moment; times are ISO 8601 in UTC. */
export interface LineSpeed {
  at: string;
  bytesPerSecond: number;
}

/** What is set for one channel alone. */
export interface OwnOnChannel extends LayerValues, OwnWords {
  /** The record's text that the own text was written over, to tell whether that has changed since. */
  textOver?: string;
  /** What is done to parts of the file for this channel alone. */
  mends?: MendsOfCut;
}

/** The layers and links as they were when a drop was sent; later changes of them do not reach it. */
export interface SentWith {
  site: LayerValues;
  channel: LayerValues;
  series: LayerValues;
  seriesName: string;
  shelf: Shelf;
  /** The file settings that are in force by a set, as the set was. */
  fileSet?: FileSet;
  /** What was put right in the file. */
  remedies?: RemediesOfCut;
  /** What was done to parts of it for this channel alone. */
  mends?: MendsOfCut;
  /** Where its frame was. */
  framings?: Framings;
}

/** What a site was asked to make room with. */
export interface BegunWith {
  key: string;
  fileName: string;
  size: number;
}

/** One video on its way to one channel. */
export interface Drop {
  id: string;
  videoId: string;
  channelId: string;
  renditionId: string | undefined;
  state: DropState;
  snag: Snag | undefined;
  /** Why nothing moves at the moment, where the worker waits for something. */
  waiting: string | undefined;
  own: OwnOnChannel;
  /** Site ids of the playlists that were chosen for it; undefined takes those of the layers. */
  chosenPlaylists: string[] | undefined;
  /** Undefined until it is sent. */
  sentWith: SentWith | undefined;
  /** Whether an act on many has moved it on last: it is carried on behind what somebody waits for. */
  amongMany: boolean;
  /** How often the video was sent to this channel anew, after it had been removed there. */
  round: number;
  /** What the site was asked to make room with, noted before it was asked. */
  begunWith: BegunWith | undefined;
  /**
   * Videos at the site that this drop no longer means, until they are removed there: their ids, or what the site was asked to
   * make room with where its answer had not come.
   */
  leftBehind: (string | BegunWith)[] | undefined;
  siteVideoId: string | undefined;
  link: string | undefined;
  /** What the adapter needs to go on with the bytes. */
  carry: Record<string, string> | undefined;
  progress: DropProgress | undefined;
  bytesSent: number;
  bytesTotal: number;
  /** Whether a person has asked for it to be opened. */
  openAsked: boolean;
  /** When that word takes effect. */
  wordAt: Date | undefined;
  /** When it opens, while it is held for its time. */
  opensAt: Date | undefined;
  /** The time at which the site was told to open it. */
  siteOpensAt: Date | undefined;
  /** The time that the site itself has said since. */
  confirmedOpensAt: Date | undefined;
  /** Undefined of one that was sent before this was kept. */
  agreed: Agreed | undefined;
  /** The release that it was let go for: with another, it is held again. */
  releasedFor: string | undefined;
  /** The widest that the site may be showing it to, as it was asked; undefined while it was never opened. */
  openedTo: Privacy | undefined;
  /** To whom the site itself has said that it shows it; undefined while it was never open. */
  confirmedTo: Privacy | undefined;
  /** What the site was asked that changes who sees it, until it has answered. */
  asking: AskedOfSight[] | undefined;
  /** To whom it was shown before it was closed; undefined of one that is open, or never was. */
  closedFrom: OpenEnd | undefined;
  /** The moment that somebody was told it could not open at. */
  lateTold: Date | undefined;
  /** Since when it is in this state. */
  stateSince: Date;
  /** Since when the site has put it off, again and again, and what kind of trouble that is. */
  putOffSince: Date | undefined;
  putOffBy: PutOff | undefined;
  attempts: number;
  sentAt: Date | undefined;
  liveAt: Date | undefined;
  /** When it opened to others than its owner; it stays where it is closed or removed since. */
  openedAt: Date | undefined;
  /** Versions of it that play at the site. */
  versions: SiteVersion[] | undefined;
  /** How fast the line was, over the time of the transfer. */
  speeds: LineSpeed[] | undefined;
  /** When it was read again, once it was live. */
  readAt: Date | undefined;
  former: FormerVideo | undefined;
  /** Links that led to it before, or to videos that it took the place of. */
  formerLinks: string[] | undefined;
  updatedAt: Date;
}

/** Every link that led to a drop, where it leaves the one that it has. */
export const linksLeft = ({ link, formerLinks = [] }: Pick<Drop, 'link' | 'formerLinks'>): string[] | undefined => {
  const links = [...new Set([...formerLinks, ...(link ? [link] : [])])];
  return links.length > 0 ? links : undefined;
};

/** What of a drop may be at its site by now. */
export const traceOf = ({ siteVideoId, begunWith }: Pick<Drop, 'siteVideoId' | 'begunWith'>): (string | BegunWith)[] =>
  siteVideoId ? [siteVideoId] : begunWith ? [begunWith] : [];

/** What a site is asked to make room for a drop with: with the same, it makes room once. */
export const transferKey = ({ id, round }: Pick<Drop, 'id' | 'round'>): string => `${id}.${round}`;

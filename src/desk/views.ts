import type { ChapterChoice, TimeLine } from '@/core/chapters';
import type { Declarations, SwitchedOff } from '@/core/declarations';
import type { CutFacts, Privacy, SiteRules } from '@/core/delivery';
import type { BoardGroup, DropState, Missing, OwnWords, SiteWords, Snag } from '@/core/drop';
import type { Fraction } from '@/core/time';
import type { CaptionTrack } from '@/store/captions';
import type { CutState } from '@/store/cuts';
import type { DropProgress } from '@/store/drops';
import type { Marker } from '@/store/markers';
import type { MeasureState } from '@/store/measurements';
import type { DropAction } from './send';

/** A drop as the Board and the Sheet show it; times are ISO 8601 in UTC. */
export interface DropView {
  id: string;
  channelId: string;
  state: DropState;
  stops: number;
  snag: Snag | undefined;
  waiting: string | undefined;
  progress: DropProgress | undefined;
  bytesSent: number;
  bytesTotal: number;
  link: string | undefined;
  liveAt: string | undefined;
  actions: DropAction[];
}

export interface CutView {
  id: string;
  fileName: string;
  state: CutState;
  size: number;
  received: number;
  facts: CutFacts | undefined;
  refusal: string | undefined;
  /** What a browser knows the file by, to go on with a transfer that broke off. */
  fingerprint: string | undefined;
}

export interface ChannelView {
  id: string;
  accountId: string;
  name: string;
  site: string;
  siteName: string;
  address: string;
  connected: boolean;
}

export interface BoardRow {
  videoId: string;
  title: string;
  group: BoardGroup;
  pictureId: string | undefined;
  privacy: Privacy;
  cut: CutView | undefined;
  betterCut: CutView | undefined;
  drops: (DropView & { missing: number })[];
}

export interface BoardView {
  channels: ChannelView[];
  rows: BoardRow[];
}

/** A video's markers; `version` goes up with every change of them. */
export interface MarkersView {
  version: number;
  markers: Marker[];
}

export interface SheetChannel extends ChannelView {
  ticked: boolean;
  /** What the site takes, for counting while somebody types. */
  rules: SiteRules;
  groups: { one: string; many: string } | undefined;
  playlists: { id: string; title: string; videos: number }[];
  chosenPlaylists: string[];
  missing: Missing[];
  /** The words as the site would get them now. */
  words: SiteWords;
  /** What is set for this channel alone. */
  own: OwnWords;
  ownPrivacy: Privacy | undefined;
  drop: DropView | undefined;
  events: { id: number; at: string; kind: string; says: string }[];
  /** Whether the record has changed since its words went to the site. */
  changedSince: boolean;
}

export interface SheetView {
  id: string;
  title: string;
  titleFrom: 'file' | 'person';
  description: string;
  tags: string[];
  privacy: Privacy;
  declarations: Declarations;
  /** What is off because the video is aimed at children. */
  switchedOff: SwitchedOff[];
  chapterChoice: ChapterChoice;
  timeLine: TimeLine;
  markersVersion: number;
  updatedAt: string;
  /** The cut in use. */
  cut: CutView | undefined;
  /** A better cut that is on its way, or was refused. */
  betterCut: CutView | undefined;
  /** Exact seconds of the cut that the markers were last said to fit, where the one in use has another length. */
  lengthBefore: Fraction | undefined;
  /** Whether the sound and the shots of the cut are known. */
  measured: MeasureState | undefined;
  captions: CaptionTrack[];
  picture: { id: string; width: number; height: number; size: number; source: 'file' | 'frame' } | undefined;
  channels: SheetChannel[];
  canUndo: boolean;
  canRedo: boolean;
}

export interface ChannelsView {
  sites: {
    id: string;
    name: string;
    kind: string;
    /** What the site calls its groups of videos, where it has any. */
    groups: string | undefined;
    accounts: {
      id: string;
      name: string;
      state: 'connected' | 'taken back' | 'disconnected';
      /** What is permitted, in words. */
      permits: string[];
      channels: (ChannelView & {
        lastUsedAt: string | undefined;
        playlists: { id: string; title: string; videos: number }[];
      })[];
    }[];
  }[];
}

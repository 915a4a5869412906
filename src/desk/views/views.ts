import type { ChapterChoice, TimeLine } from '@/core/chapters';
import type { DeclarationField, SwitchedOff } from '@/core/declarations';
import type { DefaultField, Defaults, InForce, Layer, LayerValues, Source } from '@/core/defaults';
import type { CutFacts, Privacy, SiteRules } from '@/core/delivery';
import type { BoardGroup, DropState, Missing, OpenEnd, SiteVersion, SiteWords, Snag } from '@/core/drop';
import type { FitInput, TextNames } from '@/core/fitting';
import type { Framings, Shape } from '@/core/framing';
import type { ChangedField } from '@/core/parts';
import type { Finding, WavedThrough } from '@/core/preflight';
import type { Moment } from '@/core/release';
import type { Remedies } from '@/core/renditions';
import type { Fraction } from '@/core/time';
import type { Shelf } from '@/core/words';
import type { DropProgress, OwnOnChannel } from '@/store/drop/shape';
import type { JobProgress } from '@/store/queue/jobs';
import type { Moving } from '@/store/record/board';
import type { CaptionTrack } from '@/store/record/captions';
import type { CutState } from '@/store/record/cuts';
import type { KeptLayer } from '@/store/record/defaults';
import type { Marker } from '@/store/record/markers';
import type { MeasureState } from '@/store/record/measurements';
import type { ShelfLink } from '@/store/record/shelf';
import type { AccountState } from '@/store/site/accounts';
import type { DropAction } from '../actions/act-on-drop';
import type { FieldMark } from '../layers/record-values';
import type { RenditionView } from './look-at-renditions';
import type { MatchView } from './match-view';

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
  /** Links that led to it before. */
  formerLinks: string[];
  liveAt: string | undefined;
  /** While it is held: when it opens, and whether that is by a person's word, which can be taken back until then. */
  opensAt: string | undefined;
  onWord: boolean;
  /** Whom the site may be showing it to; undefined while it was never opened. */
  openedTo: Privacy | undefined;
  /** Of one that was closed: to whom it was shown before. */
  closedFrom: OpenEnd | undefined;
  /** Minutes for which the site has put it off, where that is longer than it should be. */
  overdue: number | undefined;
  /** Whether the site shows another file than the one in use. */
  otherFile: boolean;
  /** Whether the video with the file from before stays at the site, as one of its own, where a new file is sent. */
  otherFileStays: boolean;
  /** Whether trying again gives it another link. */
  linkEnds: boolean;
  /** Whether the video there stays as it is while a better file is on its way. */
  replacing: boolean;
  /** What the site has ready of it, in the order in which it became so. */
  versions: SiteVersion[];
  /** Fields that somebody has changed at the site since it went live, and that nobody has decided on. */
  changedThere: string[];
  /** Of a live one: parts that its site did not take. */
  notTaken: string[];
  /** Of a live one: whether a rights match waits for a person. */
  matched: boolean;
  /** Of a live one: that changes are on their way to its site, and what keeps them; undefined where none are. */
  giving: { trouble: string | undefined } | undefined;
}

export interface CutView {
  id: string;
  fileName: string;
  state: CutState;
  size: number;
  received: number;
  /** Whether its file was deleted here once it was live. */
  gone: boolean;
  /** Whether it is on its way and nothing has come for too long. */
  stalled: boolean;
  /** How far it is read, while it is. */
  reading: JobProgress | undefined;
  /** What went wrong each time that it was read, where it is not tried any more until a person asks for it. */
  setAside: string | undefined;
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

/** What the Board shows of a file; of its facts, as exact seconds and pixels, only these. */
export interface BoardCut extends Omit<CutView, 'facts' | 'fingerprint'> {
  shown: { duration: Fraction; width: number; height: number } | undefined;
}

export interface BoardRow {
  videoId: string;
  title: string;
  /** The title as it goes out to the first of its channels. */
  shownTitle: string;
  series: string | undefined;
  group: BoardGroup;
  pictureId: string | undefined;
  cut: BoardCut | undefined;
  betterCut: BoardCut | undefined;
  drops: BoardDrop[];
}

/** A drop with what can be done with it on the Board. */
export interface BoardDrop extends DropView {
  actions: DropAction[];
  /** To whom it opens, where it can be opened. */
  end: OpenEnd;
}

export interface BoardView {
  channels: ChannelView[];
  /** The first videos of what was asked for, or those after the last one that was there. */
  rows: BoardRow[];
  /** Whether there are more. */
  more: boolean;
  series: { id: string; name: string }[];
}

/** A video on one channel that opens, or has opened, at a moment; in ISO 8601, UTC. */
export interface CalendarEntry {
  videoId: string;
  title: string;
  at: string;
  state: DropState;
  channel: ChannelView;
  together: boolean;
  /** Whether its time is set for this channel alone. */
  setHere: boolean;
  /** The IANA zone whose date its site prints; null where it prints the reader's, or none. */
  printsDateIn: string | null;
  /** Of one that is to come: hours that are to lie between it and others there. */
  hoursApart: number;
  /** Of one that is to come: its time as it was said. */
  opensAt: Moment | null;
  /** Of one that went out: what became of it since. */
  since: 'closed' | 'removed' | undefined;
}

/** A place of a series' rhythm at which nothing opens yet. */
export interface FreePlace {
  seriesId: string;
  series: string;
  at: string;
}

export interface CalendarView {
  entries: CalendarEntry[];
  places: FreePlace[];
  /** Whether there are more than are shown. */
  more: boolean;
}

/** How many videos stand in each group of the Board, and what moves. */
export interface BoardCounts {
  counts: Record<BoardGroup, number>;
  moving: Moving;
  /** How many videos need a person, of all there are. */
  needYou: number;
}

/** How many things keep each drop of a video from being sent, by drop; only of those that have not been. */
export type BoardMissing = Record<string, Record<string, number>>;

/** A video's markers; `version` goes up with every change of them. */
export interface MarkersView {
  version: number;
  markers: Marker[];
}

/** A file that goes up before its words, closed. */
export interface EarlyView {
  link: string | undefined;
  /** All of it is there; it goes up, or waits for its turn; or it goes on only once it is sent. */
  state: 'there' | 'going up' | 'stopped';
  progress: JobProgress | undefined;
  /** What went wrong last. */
  trouble: string | undefined;
}

export interface SheetChannel extends ChannelView {
  ticked: boolean;
  /** What the site takes, for counting while somebody types. */
  rules: SiteRules;
  groups: { one: string; many: string } | undefined;
  playlists: { id: string; title: string; videos: number }[];
  chosenPlaylists: string[];
  playlistsFrom: Source[];
  /** Titles of playlists that the layers name and the channel has none of. */
  unknownPlaylists: string[];
  missing: Missing[];
  /** The words as the site would get them now. */
  words: SiteWords;
  /** What had no room, in words. */
  leftOut: string[];
  /** What of the text stands before the fold; undefined where the site folds nothing. */
  shownFirst: string | undefined;
  /** The text that the record gives, without one that is written for this channel by hand. */
  recordText: string;
  /** Whether that has changed since the one by hand was written. */
  recordMoved: boolean;
  /** What would help people to find it there. */
  search: string[];
  /** What is set for this channel alone. */
  own: OwnOnChannel;
  /** Every field as it is in force there. */
  values: InForce;
  /** The same without what is set for this channel alone. */
  beneath: InForce;
  drop: (DropView & { actions: DropAction[] }) | undefined;
  /** Of a file that goes up before it is sent: how far it is. */
  early: EarlyView | undefined;
  /** `by`: who did it, in words. */
  events: { id: number; at: string; kind: string; says: string; by: string }[];
  /** What has changed since it went to the site, field by field. */
  changes: ChangedField[];
  /** Whether defaults or links have changed since it was sent, which changes nothing of it. */
  layersChanged: boolean;
}

export interface SheetView {
  id: string;
  title: string;
  titleFrom: 'file' | 'person';
  summary: string;
  episode: string;
  series: { id: string; name: string; from: 'file' | 'person' } | undefined;
  /** For a video in no series: the one that was used last, as an offer. */
  seriesOffer: { id: string; name: string } | undefined;
  allSeries: { id: string; name: string }[];
  /** What is set on the video itself. */
  own: LayerValues;
  /** What is in force for the record as a whole, and where each value came from. */
  values: Defaults;
  marks: Record<DefaultField, FieldMark>;
  shelf: Shelf;
  /** What is off because the video is aimed at children. */
  switchedOff: SwitchedOff[];
  /** Which markers are for viewers, and whether a person, the series or nobody has said so. */
  chapterChoice: ChapterChoice;
  chaptersChosen: 'here' | 'by the series' | undefined;
  meantBlanks: string[];
  wavedThrough: WavedThrough[];
  /** What was found in the file in use, but a site's own rules, which keep the video from it; the worst first. */
  fileFindings: Finding[];
  timeLine: TimeLine;
  markersVersion: number;
  /** Whether it goes as soon as its sites have removed it. */
  deleteAsked: boolean;
  updatedAt: string;
  /** The cut in use. */
  cut: CutView | undefined;
  /** A better cut that is on its way, or was refused. */
  betterCut: CutView | undefined;
  /** The first video that has the same file, where there is another. */
  sameFile: { videoId: string; title: string } | undefined;
  /** Exact seconds of the cut that the markers were last said to fit, where the one in use has another length. */
  lengthBefore: Fraction | undefined;
  /** Whether the sound and the shots of the cut are known. */
  measured: MeasureState | undefined;
  captions: CaptionTrack[];
  picture:
    | { id: string; width: number; height: number; size: number; source: 'file' | 'frame'; byHabit: boolean }
    | undefined;
  channels: SheetChannel[];
  /** What somebody else has rights in, of what is at sites now. */
  matches: Pick<MatchView, 'id' | 'work' | 'owner' | 'inCut' | 'open'>[];
  /** The files that go out, with the channels that each goes to. */
  renditions: RenditionView[];
  /** What is put right in the files that are made of the cut in use. */
  remedies: Remedies;
  /** Where the frames of upright and square files are, and the shapes that its file settings ask for. */
  framings: Framings;
  shapes: Shape[];
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
      state: AccountState;
      /** What is permitted, in words. */
      permits: string[];
      channels: (ChannelView & {
        lastUsedAt: string | undefined;
        /** Its live videos: how many, how many were not read again yet, and since when the others all were. */
        round: { live: number; unread: number; readSince: string | undefined };
        playlists: { id: string; title: string; videos: number }[];
      })[];
    }[];
  }[];
}

export interface SeriesListView {
  series: {
    id: string;
    name: string;
    pattern: string;
    lastUsedAt: string | undefined;
    videos: number;
    sets: LayerValues;
  }[];
  canUndo: boolean;
  canRedo: boolean;
}

/** One layer of defaults, with what there is to choose from. */
export interface LayerView {
  layer: KeptLayer;
  owner: string;
  name: string;
  /** Of a channel: its site. */
  siteName: string | undefined;
  /** Of a series: what its files' names look like. */
  pattern: string | undefined;
  set: LayerValues;
  /** What the layers beneath give. */
  beneath: InForce;
  /** Declarations that some site takes which the layer is for. */
  declares: DeclarationField[];
  categories: { id: string; name: string }[];
  hasGroups: boolean;
  channels: ChannelView[];
  playlists: string[];
  shelf: Shelf;
  /** Of a series: files that came lately, with what the pattern makes of them. */
  files: string[];
  /** Of a series: others with the same pattern; a file that fits both goes to one of them by chance. */
  samePattern: string[];
  /** Of a series: videos in no series whose files fit its pattern. */
  fitting: string[];
  /** What the sites that the layer is for take. */
  rules: SiteRules[];
  /** A video to try the words on. */
  sample: Pick<FitInput, 'title' | 'summary' | 'chapters' | 'duration'> & { names: Omit<TextNames, 'shelf'> };
  canUndo: boolean;
  canRedo: boolean;
}

/** A place at which a link of the shelf is used. */
export type ShelfUse = { says: string } & (
  | { kind: 'layer'; layer: Layer; owner: string }
  | { kind: 'video'; videoId: string }
  /** `older` is the address that went out, where it is another than the one now. */
  | { kind: 'sent'; videoId: string; older: string | undefined }
);

export interface LinksView {
  links: (ShelfLink & { uses: ShelfUse[] })[];
  /** Names that texts use and the shelf does not have. */
  missing: string[];
  canUndo: boolean;
  canRedo: boolean;
}

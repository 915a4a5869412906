import { DECLARATION_NAMES, type Declarations, PLAIN_DECLARATIONS } from '../declarations';
import type { Privacy } from '../delivery';
import type { Moment, ReleaseWay, Rhythm } from '../release';
import type { FileHabit } from '../renditions';
import type { Fraction } from '../time';
import { type LinkItem, PLAIN_TEMPLATE, PLAIN_TITLE } from '../words';

/** How a proofed video comes to be open to those who are to see it. */
export const RELEASES = [
  'by itself',
  'on my word',
  'at a time',
  'together',
  'first showing',
] as const satisfies readonly ReleaseWay[];
export type Release = ReleaseWay;

/** What stands for a video that nobody has made a picture for; `at` in exact seconds of the cut. */
export type PictureHabit =
  | { way: 'none' }
  | { way: 'moment'; at: Fraction }
  /** The frame at a moment with the title over it. */
  | { way: 'layout'; at: Fraction; band: 'below' | 'beside' };

/** Everything that layers give a video beside its own title, summary and cut. */
export interface Defaults extends Declarations {
  /** In Mustache, around the title that is typed. */
  titlePattern: string;
  /** The description in Mustache, around the summary that is typed. */
  template: string;
  tags: string[];
  links: LinkItem[];
  /** Titles of playlists; each channel puts the video in those of them that it has. */
  playlists: string[];
  privacy: Privacy;
  /** What those are told who may see it with a password; '' is none. */
  password: string;
  release: Release;
  /** When it opens, where that is at a time; only a video, or one on a channel, has one. */
  opensAt: Moment | null;
  /** Hours by which it may open late where it could not open at its time; after that, somebody is asked. */
  lateAtMost: number;
  /** Whether it opens only once the site has it in full quality. */
  fullFirst: boolean;
  /** Hours that are to lie between two releases on a channel; 0 is as it comes. */
  hoursApart: number;
  /** When the videos of a series open, again and again. */
  rhythm: Rhythm | null;
  /** Colours of the markers that are chapters for viewers, where nobody has chosen for the video. */
  chapterColours: string[];
  /** Whether captions go along. */
  sendCaptions: boolean;
  picture: PictureHabit;
  file: FileHabit;
  /** Whether a file from the inbox is sent by itself where nothing is found against it. */
  sendFromInbox: boolean;
  /** Whether files that were made for sites are deleted once every drop that they are for is live. */
  deleteMadeFiles: boolean;
  /** Whether the file that came in is deleted then, too. */
  deleteFile: boolean;
  /** Whether a new video's file goes up to a channel at once, closed, while its words are written. */
  uploadEarly: boolean;
  /** Ids of the channels that are ticked for a new video. */
  channels: string[];
}

export type DefaultField = keyof Defaults;

/** Fields whose lists a layer may add to instead of replacing them. */
export const LIST_FIELDS = ['tags', 'links', 'playlists'] as const;
export type ListField = (typeof LIST_FIELDS)[number];

/** A layer's own list: in the place of those beneath it, or after them. */
export interface ListValue<T> {
  way: 'replace' | 'add';
  items: T[];
}

/** What one layer sets; what it leaves open comes from those beneath it. */
export type LayerValues = { [F in Exclude<DefaultField, ListField>]?: Defaults[F] } & {
  [F in ListField]?: ListValue<Defaults[F][number]>;
};

/** What holds where no layer says anything. */
export const PLAIN_DEFAULTS: Defaults = {
  ...PLAIN_DECLARATIONS,
  titlePattern: PLAIN_TITLE,
  template: PLAIN_TEMPLATE,
  tags: [],
  links: [],
  playlists: [],
  privacy: 'private',
  password: '',
  release: 'by itself',
  opensAt: null,
  lateAtMost: 24,
  fullFirst: true,
  hoursApart: 0,
  rhythm: null,
  chapterColours: [],
  sendCaptions: true,
  picture: { way: 'none' },
  file: { way: 'keep' },
  sendFromInbox: false,
  deleteMadeFiles: false,
  deleteFile: false,
  uploadEarly: false,
  channels: [],
};

export const DEFAULT_FIELDS = Object.keys(PLAIN_DEFAULTS) as DefaultField[];

export const isDefaultField = (field: string): field is DefaultField => Object.hasOwn(PLAIN_DEFAULTS, field);

/** What each field is called where people read it. */
export const FIELD_NAMES: Record<DefaultField, string> = {
  titlePattern: 'title pattern',
  template: 'description template',
  tags: 'tags',
  links: 'links',
  playlists: 'playlists',
  privacy: 'privacy',
  password: 'password',
  release: 'release',
  opensAt: 'opening time',
  lateAtMost: 'late opening',
  fullFirst: 'full quality first',
  hoursApart: 'time between releases',
  rhythm: 'rhythm',
  chapterColours: 'marker colours for chapters',
  sendCaptions: 'captions',
  picture: 'picture',
  file: 'file settings',
  sendFromInbox: 'files from the inbox',
  deleteMadeFiles: 'files made for sites',
  deleteFile: 'file once it is live',
  uploadEarly: 'early upload',
  channels: 'channels',
  ...DECLARATION_NAMES,
};

export const isListField = (field: DefaultField): field is ListField =>
  (LIST_FIELDS as readonly string[]).includes(field);

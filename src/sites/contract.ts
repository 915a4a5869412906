import type { Readable } from 'node:stream';
import type { Privacy, SiteRules } from '@/core/delivery';
import type { ReviewHours, RightsAsk, SiteVersion } from '@/core/drop';
import type { PartName, PartsShown, PartValues } from '@/core/parts';
import type { Tokens } from '@/core/permission/tokens';
import type { RightsMatch } from '@/core/rights';

/** What a site can do beside taking a file; the Sheet offers, and the worker does, only what is declared. */
export interface SiteAbilities {
  /** What the site calls its groups of videos, or undefined where it has none. */
  groups: { one: string; many: string } | undefined;
  /** Whether a transfer goes on from the last byte, or starts again. */
  resumes: boolean;
  /** Whether a review by people stands between settled and cleared, and within how many hours it is usually answered. */
  review: boolean;
  reviewHours?: ReviewHours;
  /** Whether a video may be removed again. */
  removes: boolean;
  /** Whether its page of a video may be shown inside other pages. */
  embeds?: boolean;
  /** Whether a video’s file may be replaced by that of another, so that the link stays. */
  swapsFiles?: boolean;
  /** Whether a rights match may be disputed there. */
  disputes?: boolean;
}

/** Everything that is known of a site without asking it. */
export interface SiteProfile extends SiteRules {
  id: string;
  /** What kind of site it is, in a few words. */
  kind: string;
  abilities: SiteAbilities;
  /** The scopes that are asked for when somebody connects, each with what it permits, in words. */
  scopes: Readonly<Record<string, string>>;
}

/** An account as the site names it. */
export interface SiteAccount {
  siteAccountId: string;
  name: string;
  scope: string;
}

export interface SiteChannel {
  siteChannelId: string;
  name: string;
  address: string;
  /** Whether adverts may be shown on its videos. */
  mayEarn: boolean;
}

export interface SiteGroup {
  sitePlaylistId: string;
  title: string;
  videos: number;
}

/** A file that can be opened again from any byte. */
export interface CarriedFile {
  fileName: string;
  size: number;
  /** The bytes from `start` up to and including `end`, or to the last. */
  open(start: number, end?: number): Readable;
}

/** A video that the site has made room for. `carry` is whatever the adapter needs to go on with the bytes. */
export interface Begun {
  siteVideoId: string;
  link: string;
  carry: Record<string, string>;
}

/** How far the site is. */
export type SiteState =
  | { stage: 'receiving' }
  /** `plays`: a version of it can be watched already. */
  | { stage: 'processing'; says: string; fraction: number | undefined; plays?: boolean }
  | { stage: 'ready' }
  | { stage: 'failed'; reason: string };

/** What the site's checks have found. */
export type SiteChecks =
  | { verdict: 'waiting'; says: string }
  | { verdict: 'passed' }
  | {
      verdict: 'found';
      of: 'rights' | 'review';
      what: string;
      remedy: string;
      /** Of a rights match: what its owner asks, where that is known, and who it is. */
      asks?: RightsAsk;
      owner?: string;
    };

/** What the site says of a video now. */
export interface SiteStatus {
  state: SiteState;
  checks: SiteChecks;
  privacy: Privacy;
  /** The time at which it opens the video by itself, where it was told one. */
  opensAt?: Date;
  /** Whether that is a first showing. */
  firstShowing?: boolean;
  /** Every rights match that was found in it, the settled ones too; spans in the time of the file that is there. */
  matches?: RightsMatch[];
  /** What of it is ready, in the order in which it became so; undefined where the site does not tell. */
  versions?: SiteVersion[];
}

/** What a look at a video tells. */
export interface SiteLook {
  status: SiteStatus;
  /** What the site really shows, part by part; a part that it does not tell of is not among them. */
  shown: PartsShown;
}

/** How a site tells of several videos in one request. */
export interface LookAtMany {
  /** So many at the most. */
  atOnce: number;
  /** What it tells, by the ids; a video that is gone is not among them. */
  look(session: Session, siteVideoIds: readonly string[]): Promise<ReadonlyMap<string, SiteLook>>;
}

/** Captions in one language, as WebVTT. */
export interface SiteCaptions {
  language: string;
  webvtt: string;
}

/** What a site is given of each part: as the record means it, but for what goes along with files or secrets. */
export interface CarriedParts extends Omit<PartValues, 'picture' | 'captions' | 'privacy' | 'file' | 'video'> {
  /** '' is the site’s own. */
  picture: { bytes: Buffer; type: string } | '';
  captions: SiteCaptions[];
  /** Who may see it while it waits, with the password where it needs one. */
  privacy: { to: Privacy; password: string };
}

/** Parts that a site takes in one request. */
export interface SiteGift {
  /** Every part that it takes so, `privacy` where who sees the video goes along. */
  parts: readonly PartName[];
  /** Whether a request says that it is all there, so that none is made with a part of them where another is refused. */
  whole?: true;
  /** Sets those that are given, and leaves the others as they are. Each is a whole value, so that a second time changes nothing. */
  give(session: Session, siteVideoId: string, values: Partial<CarriedParts>): Promise<void>;
}

/** Why a site did not do what it was asked. */
export type SiteErrorKind =
  /** It asks to come back later, after `retryAfter` seconds. */
  | 'busy'
  /** It cannot be reached, or the line broke. */
  | 'unreachable'
  /** It is in the way of something else there; another try may go better, but not for ever. */
  | 'conflict'
  /** The permission has run out for good or was taken back. */
  | 'permission'
  /** It will not take what it was given; `message` says what and why. */
  | 'refused'
  /** The video or channel is no longer there. */
  | 'missing';

/** An error of a site, told apart so that the worker knows what to do next. */
export class SiteError extends Error {
  override name = 'SiteError';
  constructor(
    readonly kind: SiteErrorKind,
    message: string,
    readonly retryAfter?: number,
  ) {
    super(message);
  }
}

/** A site takes no more requests from the account for now; it was not asked. */
export class AllowanceSpent extends SiteError {
  override name = 'AllowanceSpent';
  /** @param seconds until it takes the next */
  constructor(readonly seconds: number) {
    super('busy', `It takes no more requests from this account for ${Math.ceil(seconds)} s`, seconds);
  }
}

/** What an answer says about itself. */
export interface AnswerHead {
  status: number;
  /** A header field by its name in lower case. */
  field: (name: string) => string | undefined;
}

/** A request that a site was asked. */
export interface AskedOfSite {
  method: string;
  address: string;
  /** When it was asked, by the monotonic clock. */
  since: number;
}

/** A person's permission at work. */
export interface Session {
  /**
   * A good access token for one request more; one that has run out is renewed.
   * @param stale the token that the site has just refused, so that it is renewed
   * @throws SiteError 'permission'; AllowanceSpent
   */
  accessToken(stale?: string): Promise<string>;
  /** Hears how the site has answered, so that the requests that are left are known; undefined where nothing did. */
  heard(answer: AnswerHead | undefined, asked: AskedOfSite): Promise<void>;
}

/** Signing in at a site (OAuth 2.0 with PKCE). */
export interface Authorisation {
  /** The address to send the browser to, and the verifier to keep for `finish`. */
  start(redirectUri: string, state: string): Promise<{ address: string; verifier: string }>;
  /** Tokens for what the browser brought back. @throws SiteError 'refused' where the person did not agree */
  finish(back: URL, redirectUri: string, state: string, verifier: string): Promise<Tokens>;
  /** @throws SiteError 'permission' where the site no longer takes the refresh token */
  renew(tokens: Tokens): Promise<Tokens>;
  revoke(tokens: Tokens): Promise<void>;
}

/**
 * How to speak to a site. Every call may be made again after a crash and then changes nothing more: it carries an
 * idempotency key, sets a whole value, or looks before it acts. Every call may throw SiteError.
 */
export interface SiteAdapter {
  profile: SiteProfile;
  authorisation: Authorisation;
  account(session: Session): Promise<SiteAccount>;
  channels(session: Session): Promise<SiteChannel[]>;
  /** Makes room for a video; with the same `key` it gives the same video. It starts as closed as the site allows. */
  begin(session: Session, siteChannelId: string, key: string, file: CarriedFile): Promise<Begun>;
  /**
   * Brings the bytes over, from the last that the site has confirmed, until it has confirmed them all.
   * @param onProgress hears how many bytes are over
   */
  carry(
    session: Session,
    begun: Begun,
    file: CarriedFile,
    onProgress: (bytes: number) => void,
    signal: AbortSignal,
  ): Promise<void>;
  /** How each part that the site has is given, in the order in which they go. */
  gives: readonly SiteGift[];
  /** What the site says of a video and shows of it now, in one request. */
  look(session: Session, siteVideoId: string): Promise<SiteLook>;
  /** The same of several videos of one account; only where the site tells it so. */
  lookAtMany?: LookAtMany;
  /** Sets who may see the video, in both directions, with the password where it needs one; 'refused' where the site has no such privacy. */
  showTo(session: Session, siteVideoId: string, privacy: Privacy, password?: string): Promise<void>;
  /**
   * Has the site open the video by itself at a time, to those named; until then it is closed. Any other call that sets who
   * may see it takes the time back. Only where the profile says that the site keeps times. As a first showing, all who come
   * from then on see the same moment; only where the profile says that it has them.
   */
  openAt?(session: Session, siteVideoId: string, at: Date, privacy: Privacy, firstShowing?: boolean): Promise<void>;
  /**
   * Puts the file of one video in the place of another's, which keeps its link and its words; the one that it came from is gone.
   * Where that has happened already, nothing changes. Only where the profile says so.
   */
  takePlace?(session: Session, siteVideoId: string, from: string): Promise<void>;
  /** Removes the video; one that is gone already is no error. */
  remove(session: Session, siteVideoId: string): Promise<void>;
  /** Agrees to what the owner of a rights match asks; only on sites whose checks can find one. */
  acceptMatch?(session: Session, siteVideoId: string, matchId: string): Promise<void>;
  /** Disputes a rights match; what comes of it is told by `look`. The same text twice is one dispute. */
  disputeMatch?(session: Session, siteVideoId: string, matchId: string, text: string): Promise<void>;
  /** Only where the profile names groups. */
  groups?: {
    list(session: Session, siteChannelId: string): Promise<SiteGroup[]>;
    make(session: Session, siteChannelId: string, key: string, title: string): Promise<SiteGroup>;
  };
}

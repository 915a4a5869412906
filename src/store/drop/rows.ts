import type { AskedOfSight, SiteVersion, Snag } from '@/core/drop';
import type { Agreed } from '@/core/release';
import { now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import type { Drop, DropProgress, FormerVideo, LineSpeed, OwnOnChannel, SentWith } from './shape';

export const columns = [
  'id',
  'videoId',
  'channelId',
  'renditionId',
  'state',
  'snag',
  'waiting',
  'own',
  'chosenPlaylists',
  'sentWith',
  'amongMany',
  'round',
  'begunWith',
  'leftBehind',
  'siteVideoId',
  'link',
  'carry',
  'progress',
  'bytesSent',
  'bytesTotal',
  'openAsked',
  'wordAt',
  'opensAt',
  'siteOpensAt',
  'confirmedOpensAt',
  'agreed',
  'releasedFor',
  'openedTo',
  'confirmedTo',
  'asking',
  'closedFrom',
  'lateTold',
  'stateSince',
  'putOffSince',
  'putOffBy',
  'attempts',
  'sentAt',
  'liveAt',
  'openedAt',
  'versions',
  'speeds',
  'readAt',
  'former',
  'formerLinks',
  'updatedAt',
];

const JSON_FIELDS = [
  ...(['snag', 'own', 'chosenPlaylists', 'sentWith', 'carry', 'progress', 'begunWith', 'leftBehind'] as const),
  ...(['versions', 'speeds', 'former', 'formerLinks', 'asking', 'agreed'] as const),
] as const;

export type Row = { [K in keyof Drop]: unknown } & Record<(typeof JSON_FIELDS)[number], string | null>;

export function fromRow(row: Row): Drop {
  const values: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(row)) values[key] = value ?? undefined;
  return {
    ...values,
    snag: fromJson<Snag>(row.snag),
    own: fromJson<OwnOnChannel>(row.own) ?? {},
    chosenPlaylists: fromJson<string[]>(row.chosenPlaylists),
    sentWith: fromJson<SentWith>(row.sentWith),
    carry: fromJson<Record<string, string>>(row.carry),
    progress: fromJson<DropProgress>(row.progress),
    begunWith: fromJson<Drop['begunWith']>(row.begunWith),
    leftBehind: fromJson<Drop['leftBehind']>(row.leftBehind),
    versions: fromJson<SiteVersion[]>(row.versions),
    speeds: fromJson<LineSpeed[]>(row.speeds),
    former: fromJson<FormerVideo>(row.former),
    formerLinks: fromJson<string[]>(row.formerLinks),
    asking: fromJson<AskedOfSight[]>(row.asking),
    agreed: fromJson<Agreed>(row.agreed),
    openAsked: row.openAsked === 1,
    amongMany: row.amongMany === 1,
  } as Drop;
}

/** Fields of a drop that may be set beside its state. */
export type DropFields = Partial<Omit<Drop, 'id' | 'videoId' | 'channelId' | 'state' | 'stateSince' | 'updatedAt'>>;

export function toRow(db: Database, fields: DropFields): Record<string, unknown> {
  const row: Record<string, unknown> = { updatedAt: now(db) };
  for (const [key, value] of Object.entries(fields)) {
    const json = (JSON_FIELDS as readonly string[]).includes(key);
    row[key] = json ? toJson(value) : (value ?? null);
  }
  return row;
}

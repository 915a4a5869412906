import type { Knex } from 'knex';
import { PLAIN_DEFAULTS } from '@/core/defaults';
import type { Privacy } from '@/core/delivery';
import {
  BOARD_GROUPS,
  type BoardGroup,
  type BoardLack,
  type BoardOrder,
  PATIENCE_MINUTES,
  type PutOff,
  stateRank,
  WORKING_STATES,
} from '@/core/drop';
import { type Database, fromJson } from '@/store/database';
import { liveMatched } from '@/store/drop/rights-matches';
import type { DropProgress } from '@/store/drop/shape';

/**
 * After how many seconds without a byte, and without a word of the page that brings it, a file needs a person. Browsers let
 * a page that is not looked at speak once a minute.
 */
export const STALLED_SECONDS = 150;

/** Which videos of the Board are asked for. */
export interface BoardChoice {
  /** A part of a title, an episode, a file's name, a link or the name of a series. */
  find?: string;
  group?: BoardGroup;
  seriesId?: string;
  channelId?: string;
  /** Who is to see it somewhere, as its record says. */
  privacy?: Privacy;
  /** What is not there. */
  lacks?: BoardLack;
  /** Added within so many days. */
  days?: number;
  /** Only these videos. */
  ids?: readonly string[];
}

/** The last video that is there already: its place, its title, and how its drop stands on the channel that is sorted by. */
export type BoardAfter = BoardPlace & { title: string; stateRank?: number };

/** Where one video stands among all of the Board. */
export interface BoardPlace {
  id: string;
  group: BoardGroup;
}

const patience = Object.entries(PATIENCE_MINUTES) as [PutOff, number][];

/** Only rows of these videos, where they are named: what is grouped for all others would be thrown away. */
const onlyOf = (query: Knex.QueryBuilder, ids: readonly string[] | undefined) =>
  ids ? query.whereIn('videoId', [...ids]) : query;

/** For each video, what its drops say of it; one pass over an index of their states. */
function ofDrops(db: Database, ids: readonly string[] | undefined): Knex.QueryBuilder {
  const working = db.raw(`?? IN (${WORKING_STATES.map(() => '?').join(', ')})`, ['state', ...WORKING_STATES]);
  const minutes = db.raw(
    `CASE WHEN ?? = ? THEN 0 ELSE CASE ?? ${patience.map(() => 'WHEN ? THEN ?').join(' ')} END END`,
    [...['state', 'opening', 'putOffBy'], ...patience.flat()],
  );
  const overdue = db.raw('? AND TIMESTAMPDIFF(MINUTE, ??, UTC_TIMESTAMP(3)) >= ?', [working, 'putOffSince', minutes]);
  return onlyOf(db('drops'), ids)
    .groupBy('videoId')
    .select('videoId')
    .select({
      needs: db.raw('MAX(?? = ? OR IFNULL(?, 0) OR ?? IN (?))', ['state', 'snag', overdue, 'id', liveMatched(db)]),
      moves: db.raw('MAX(?)', [working]),
      waits: db.raw('MAX(?? = ?)', ['state', 'held']),
      sent: db.raw('MAX(?? NOT IN (?, ?))', ['state', 'draft', 'removed']),
    });
}

const LACKS: Record<BoardLack, (db: Database, query: Knex.QueryBuilder) => void> = {
  picture: (_, query) => query.whereNull('v.pictureId'),
  summary: (_, query) => query.where('v.summary', ''),
  series: (_, query) => query.whereNull('v.seriesId'),
  captions: (db, query) => query.whereNotIn('v.id', db('captions').where({ inUse: true }).select('videoId')),
  channel: (db, query) => query.whereNotIn('v.id', db('drops').select('videoId')),
};

/** The videos that are meant to end at a privacy on one of their channels: the nearest layer that sets it has the word. */
function withPrivacy(db: Database, privacy: Privacy): Knex.QueryBuilder {
  const set = (column: string) => db.raw("JSON_VALUE(??, '$.privacy')", [column]);
  const layers = ['d.own', 'pv.own', 'ls.setValues', 'lc.setValues', 'lt.setValues'].map(set);
  return db('drops as d')
    .join('videos as pv', 'pv.id', 'd.videoId')
    .join('channels as pc', 'pc.id', 'd.channelId')
    .join('accounts as pa', 'pa.id', 'pc.accountId')
    .leftJoin('defaults as ls', (on) => on.onVal('ls.layer', 'series').andOn('ls.owner', 'pv.seriesId'))
    .leftJoin('defaults as lc', (on) => on.onVal('lc.layer', 'channel').andOn('lc.owner', 'pc.id'))
    .leftJoin('defaults as lt', (on) => on.onVal('lt.layer', 'site').andOn('lt.owner', 'pa.site'))
    .whereRaw(`COALESCE(${layers.map(() => '?').join(', ')}, ?) = ?`, [...layers, PLAIN_DEFAULTS.privacy, privacy])
    .select('d.videoId');
}

/** All videos of a choice, each with its group as `boardGroup` of the core has it, by its number. */
function placed(db: Database, choice: BoardChoice): Knex.QueryBuilder {
  const { find = '', seriesId, channelId, privacy, lacks, days, ids } = choice;
  // Most files are ready, and those say nothing: only of the others the newest is looked for.
  const later = db('cuts as x').select(db.raw('1')).whereRaw('?? = ??', ['x.videoId', 'cuts.videoId']);
  const notReady = onlyOf(db('cuts'), ids)
    .whereIn('state', ['arriving', 'reading', 'refused'])
    .whereNotExists(later.whereRaw('?? > ??', ['x.ordinal', 'cuts.ordinal']))
    .select('id', 'videoId', 'state', 'heardAt');
  const stalled = db.raw('(?? = ? AND TIMESTAMPDIFF(SECOND, ??, UTC_TIMESTAMP(3)) > ?)', [
    ...['c.state', 'arriving', 'c.heardAt', STALLED_SECONDS],
  ]);
  const rank = db.raw(
    `CASE WHEN ?? = ? OR IFNULL(?, 0) OR ?? IS NOT NULL OR IFNULL(??, 0) THEN 0
      WHEN ?? IN (?, ?) OR IFNULL(??, 0) THEN 1
      WHEN IFNULL(??, 0) THEN 2
      WHEN IFNULL(??, 0) THEN 4
      ELSE 3 END`,
    [
      'c.state',
      'refused',
      stalled,
      'j.id',
      'd.needs',
      'c.state',
      'arriving',
      'reading',
      'd.moves',
      'd.waits',
      'd.sent',
    ],
  );
  const query = db('videos as v')
    .leftJoin(notReady.as('c'), 'c.videoId', 'v.id')
    .leftJoin('jobs as j', (on) =>
      on
        .on('j.subject', 'c.id')
        .andOnVal('c.state', 'reading')
        .andOnVal('j.kind', 'read')
        .andOnVal('j.state', 'set aside'),
    )
    .leftJoin(ofDrops(db, ids).as('d'), 'd.videoId', 'v.id')
    .select({ id: 'v.id', rank });
  if (ids) query.whereIn('v.id', [...ids]);
  if (seriesId) query.where('v.seriesId', seriesId);
  if (channelId) query.whereIn('v.id', db('drops').select('videoId').where({ channelId }));
  if (privacy) query.whereIn('v.id', withPrivacy(db, privacy));
  if (lacks) LACKS[lacks](db, query);
  if (days) query.where('v.createdAt', '>=', db.raw('UTC_TIMESTAMP(3) - INTERVAL ? DAY', [days]));
  const words = find.trim();
  if (words !== '') {
    const like = `%${words.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
    query.where((some) =>
      some
        .where('v.title', 'like', like)
        .orWhere('v.episode', 'like', like)
        .orWhereIn('v.id', db('cuts').select('videoId').where('fileName', 'like', like))
        .orWhereIn('v.id', db('drops').select('videoId').where('link', 'like', like))
        .orWhereIn('v.id', db('drops').select('videoId').where('formerLinks', 'like', like))
        .orWhereIn('v.seriesId', db('series').select('id').where('name', 'like', like)),
    );
  }
  return query;
}

const groupOf = (rank: number): BoardGroup => BOARD_GROUPS[rank] ?? 'live lately';

/** How many videos of a choice are in each group; the choice's own group is left out of account. */
export async function boardCounts(db: Database, choice: BoardChoice): Promise<Record<BoardGroup, number>> {
  const rows: { rank: number; videos: number }[] = await db(placed(db, choice).as('p'))
    .groupBy('rank')
    .select({ rank: 'rank', videos: db.raw('COUNT(*)') });
  const counts = new Map(rows.map(({ rank, videos }) => [groupOf(rank), videos]));
  return Object.fromEntries(BOARD_GROUPS.map((group) => [group, counts.get(group) ?? 0])) as Record<BoardGroup, number>;
}

/**
 * The next videos of a choice, in their order.
 * @param after the last one that is there already, with its title
 * @param most how many
 * @param by the channel that is sorted by, where the order is by one
 */
export async function boardPlaces(
  db: Database,
  choice: BoardChoice,
  order: BoardOrder,
  after: BoardAfter | undefined,
  most: number,
  by?: string,
): Promise<BoardPlace[]> {
  const byTitle = order === 'title';
  const byChannel = order === 'channel' ? by : undefined;
  const videos = placed(db, choice);
  if (byTitle) videos.select({ title: 'v.title' });
  if (byChannel) {
    const others = ['snag', 'held', 'draft', 'live', 'removed'] as const;
    const rank = db.raw(`CASE WHEN ?? IS NULL THEN ? ${others.map(() => 'WHEN ?? = ? THEN ?').join(' ')} ELSE ? END`, [
      ...['o.state', stateRank(undefined)],
      ...others.flatMap((state) => ['o.state', state, stateRank(state)]),
      stateRank('landing'),
    ]);
    videos
      .leftJoin('drops as o', (on) => on.on('o.videoId', 'v.id').andOnVal('o.channelId', byChannel))
      .select({ stateRank: rank });
  }
  const query = db(videos.as('p')).select('id', 'rank').limit(most);
  if (choice.group) query.where({ rank: BOARD_GROUPS.indexOf(choice.group) });
  if (order === 'needs') query.orderBy('rank');
  if (byTitle) query.orderBy('title');
  if (byChannel) query.orderBy('stateRank');
  // Ids are in the order in which the videos came.
  query.orderBy('id', byTitle ? 'asc' : 'desc');
  if (after) {
    const { id, title, stateRank: behind = 0 } = after;
    const rank = BOARD_GROUPS.indexOf(after.group);
    if (order === 'needs') query.whereRaw('(?? > ? OR (?? = ? AND ?? < ?))', ['rank', rank, 'rank', rank, 'id', id]);
    if (order === 'newest') query.where('id', '<', id);
    if (byChannel) {
      const names = ['stateRank', behind, 'stateRank', behind, 'id', id];
      query.whereRaw('(?? > ? OR (?? = ? AND ?? < ?))', names);
    }
    if (byTitle) query.whereRaw('(?? > ? OR (?? = ? AND ?? > ?))', ['title', title, 'title', title, 'id', id]);
  }
  const rows: { id: string; rank: number }[] = await query;
  return rows.map(({ id, rank }) => ({ id, group: groupOf(rank) }));
}

/** All transfers to sites together. */
export interface Moving {
  bytesPerSecond: number;
  /** Until the last of them is over. */
  secondsLeft: number;
}

/** How fast files go to sites now. */
export async function movingNow(db: Database): Promise<Moving> {
  const landing: { progress: string }[] = await db('drops')
    .where({ state: 'landing' })
    .whereNotNull('progress')
    .select('progress');
  const told = landing.map(({ progress }) => fromJson<DropProgress>(progress));
  return {
    bytesPerSecond: told.reduce((sum, progress) => sum + (progress?.bytesPerSecond ?? 0), 0),
    secondsLeft: Math.max(0, ...told.map((progress) => progress?.secondsLeft ?? 0)),
  };
}

import type { Knex } from 'knex';
import {
  BOARD_GROUPS,
  type BoardGroup,
  type BoardOrder,
  PATIENCE_MINUTES,
  type PutOff,
  WORKING_STATES,
} from '@/core/drop';
import { type Database, fromJson } from './database';
import type { DropProgress } from './drops';

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
  /** Only these videos. */
  ids?: readonly string[];
}

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
  const minutes = db.raw(`CASE ?? ${patience.map(() => 'WHEN ? THEN ?').join(' ')} END`, [
    'putOffBy',
    ...patience.flat(),
  ]);
  const overdue = db.raw('? AND TIMESTAMPDIFF(MINUTE, ??, UTC_TIMESTAMP(3)) >= ?', [working, 'putOffSince', minutes]);
  return onlyOf(db('drops'), ids)
    .groupBy('videoId')
    .select('videoId')
    .select({
      needs: db.raw('MAX(?? = ? OR IFNULL(?, 0))', ['state', 'snag', overdue]),
      moves: db.raw('MAX(?)', [working]),
      waits: db.raw('MAX(?? = ?)', ['state', 'held']),
      sent: db.raw('MAX(?? NOT IN (?, ?))', ['state', 'draft', 'removed']),
    });
}

/** All videos of a choice, each with its group as `boardGroup` of the core has it, by its number. */
function placed(db: Database, { find = '', seriesId, channelId, ids }: BoardChoice): Knex.QueryBuilder {
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
  const words = find.trim();
  if (words !== '') {
    const like = `%${words.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
    query.where((some) =>
      some
        .where('v.title', 'like', like)
        .orWhere('v.episode', 'like', like)
        .orWhereIn('v.id', db('cuts').select('videoId').where('fileName', 'like', like))
        .orWhereIn('v.id', db('drops').select('videoId').where('link', 'like', like))
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
 */
export async function boardPlaces(
  db: Database,
  choice: BoardChoice,
  order: BoardOrder,
  after: (BoardPlace & { title: string }) | undefined,
  most: number,
): Promise<BoardPlace[]> {
  const byTitle = order === 'title';
  const videos = byTitle ? placed(db, choice).select({ title: 'v.title' }) : placed(db, choice);
  const query = db(videos.as('p')).select('id', 'rank').limit(most);
  if (choice.group) query.where({ rank: BOARD_GROUPS.indexOf(choice.group) });
  if (order === 'needs') query.orderBy('rank');
  if (byTitle) query.orderBy('title');
  // Ids are in the order in which the videos came.
  query.orderBy('id', byTitle ? 'asc' : 'desc');
  if (after) {
    const { id, title } = after;
    const rank = BOARD_GROUPS.indexOf(after.group);
    if (order === 'needs') query.whereRaw('(?? > ? OR (?? = ? AND ?? < ?))', ['rank', rank, 'rank', rank, 'id', id]);
    if (order === 'newest') query.where('id', '<', id);
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

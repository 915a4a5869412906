import type { Database } from '@/store/database';

/** What a video takes of the disk, in bytes. */
export interface DiskUse {
  videoId: string;
  title: string;
  /** Files that came in, those from before too. */
  files: number;
  /** Files that were made of them for sites. */
  made: number;
  /** Its drops that are not removed, and how many of them are not live. */
  drops: number;
  notLive: number;
}

const sums = (db: Database) => {
  const files = db('cuts')
    .whereNull('goneAt')
    .groupBy('videoId')
    .select('videoId', { bytes: db.raw('SUM(size)') });
  const made = db('renditions as r')
    .join('cuts as c', 'c.id', 'r.cutId')
    .where('r.state', 'ready')
    .whereNotNull('r.recipe')
    .groupBy('c.videoId')
    .select('c.videoId', { bytes: db.raw('SUM(??)', ['r.size']) });
  return { files, made };
};

const bytes = (value: unknown) => Number(value ?? 0);

/** What videos take of the disk, those that take most first. */
export async function largestOnDisk(db: Database, most: number): Promise<DiskUse[]> {
  const { files, made } = sums(db);
  const drops = db('drops')
    .whereNot('state', 'removed')
    .groupBy('videoId')
    .select('videoId', { drops: db.raw('COUNT(*)'), notLive: db.raw('SUM(?? <> ?)', ['state', 'live']) });
  const all = 'COALESCE(??, 0) + COALESCE(??, 0)';
  const rows: Record<keyof DiskUse, unknown>[] = await db('videos as v')
    .leftJoin(files.as('f'), 'f.videoId', 'v.id')
    .leftJoin(made.as('m'), 'm.videoId', 'v.id')
    .leftJoin(drops.as('d'), 'd.videoId', 'v.id')
    .whereRaw(`${all} > 0`, ['f.bytes', 'm.bytes'])
    .orderByRaw(`${all} DESC`, ['f.bytes', 'm.bytes'])
    .limit(most)
    .select({ videoId: 'v.id', title: 'v.title', files: 'f.bytes', made: 'm.bytes' })
    .select({ drops: 'd.drops', notLive: 'd.notLive' });
  return rows.map((row) => ({
    videoId: String(row.videoId),
    title: String(row.title),
    files: bytes(row.files),
    made: bytes(row.made),
    drops: bytes(row.drops),
    notLive: bytes(row.notLive),
  }));
}

/** What all videos take. */
export async function allOnDisk(db: Database): Promise<Pick<DiskUse, 'files' | 'made'> & { videos: number }> {
  const { files, made } = sums(db);
  const [[ofFiles], [ofMade]] = await Promise.all([
    db.from(files.as('f')).select({ bytes: db.raw('SUM(??)', ['f.bytes']), videos: db.raw('COUNT(*)') }),
    db.from(made.as('m')).select({ bytes: db.raw('SUM(??)', ['m.bytes']) }),
  ]);
  return { files: bytes(ofFiles?.bytes), made: bytes(ofMade?.bytes), videos: bytes(ofFiles?.videos) };
}

/** Something that a video may have as its own habit, or that of its series. */
export interface Habit {
  field: string;
  /** Series that have it. */
  seriesIds: readonly string[];
}

/** Videos that may have a habit: of few it is one, and of the others nothing else is read. */
export const videosOfHabit = (db: Database, { field, seriesIds }: Habit) =>
  db('videos')
    .whereRaw("JSON_VALUE(??, ?) = 'true' OR JSON_VALUE(??, ?) = '1'", ['own', `$.${field}`, 'own', `$.${field}`])
    .orWhereIn('seriesId', [...seriesIds])
    .select('id');

/**
 * Videos whose own files have done what they are for: everything of them that goes anywhere is live, and went there after the
 * last file came. One that was added since is still to be sent.
 */
export async function videosAllLive(db: Database, habit: Habit): Promise<string[]> {
  const rows: { videoId: string }[] = await db('drops as d')
    .join('cuts as c', 'c.videoId', 'd.videoId')
    .whereIn('d.videoId', videosOfHabit(db, habit))
    .whereNot('d.state', 'removed')
    .whereNull('c.goneAt')
    .groupBy('d.videoId')
    .havingRaw('SUM(?? <> ?) = 0 AND MAX(??) <= MAX(??)', ['d.state', 'live', 'c.arrivedAt', 'd.liveAt'])
    .select('d.videoId');
  return rows.map(({ videoId }) => videoId);
}

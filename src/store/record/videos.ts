import { type ChapterChoice, PLAIN_TIME_LINE, type TimeLine } from '@/core/chapters';
import type { LayerValues } from '@/core/defaults';
import type { Framings } from '@/core/framing';
import type { WavedThrough } from '@/core/preflight';
import type { RemediesOfCut } from '@/core/renditions';
import { type Database, fromJson, toJson } from '@/store/database';
import { giveUpEarlyUploads } from '@/store/drop/early-uploads';
import { askToRemoveFiles } from '@/store/files/removals';
import { newId } from '@/store/ids';
import { cancelJobs } from '@/store/queue/jobs';
import { fileKeysOf, renditionIdsOf } from '@/store/record/cuts';

/** A video's record: what is set on it. */
export interface Video {
  id: string;
  title: string;
  titleFrom: 'file' | 'person';
  /** Two or three lines about it; the description's template stands around them. */
  summary: string;
  /** What is set on it; everything else comes from the layers. */
  own: LayerValues;
  seriesId: string | undefined;
  /** How it came to its series. */
  seriesFrom: 'file' | 'person' | undefined;
  /** '' where it has none. */
  episode: string;
  /** Undefined while nobody has chosen for this video; the series may say what is for viewers. */
  chapterChoice: ChapterChoice | undefined;
  timeLine: TimeLine;
  /** Counts the changes of its markers, so that a page knows whether it has the newest. */
  markersVersion: number;
  pictureId: string | undefined;
  /** The file that is in use by a person's choice; undefined takes the newest. */
  cutId: string | undefined;
  /** Texts that look like blanks and are meant as they stand. */
  meantBlanks: string[];
  /** Findings that a person says are meant. */
  wavedThrough: WavedThrough[];
  /** What is put right in the files that are made of one cut. */
  remedies: RemediesOfCut | undefined;
  /** Where the frames of upright and square files are. */
  framings: Framings;
  /** When a person asked to delete it; it goes once it is gone from its sites. */
  deleteAskedAt: Date | undefined;
  createdAt: Date;
  updatedAt: Date;
}

const JSON_FIELDS = [
  'own',
  'chapterChoice',
  'timeLine',
  'meantBlanks',
  'wavedThrough',
  'remedies',
  'framings',
] as const;
type JsonField = (typeof JSON_FIELDS)[number];

type Optional = 'pictureId' | 'seriesId' | 'seriesFrom' | 'cutId' | 'deleteAskedAt';

type Row = Omit<Video, JsonField | Optional> &
  Record<JsonField, string | null> & { [K in Optional]: NonNullable<Video[K]> | null };

const fromRow = (row: Row): Video => ({
  ...row,
  own: fromJson<LayerValues>(row.own) ?? {},
  seriesId: row.seriesId ?? undefined,
  seriesFrom: row.seriesFrom ?? undefined,
  chapterChoice: fromJson<ChapterChoice>(row.chapterChoice),
  timeLine: fromJson<TimeLine>(row.timeLine) ?? PLAIN_TIME_LINE,
  pictureId: row.pictureId ?? undefined,
  cutId: row.cutId ?? undefined,
  deleteAskedAt: row.deleteAskedAt ?? undefined,
  meantBlanks: fromJson<string[]>(row.meantBlanks) ?? [],
  wavedThrough: fromJson<WavedThrough[]>(row.wavedThrough) ?? [],
  remedies: fromJson<RemediesOfCut>(row.remedies),
  framings: fromJson<Framings>(row.framings) ?? {},
});

/** Makes a record whose title came from its file's name; its id is returned. */
export async function makeVideo(
  db: Database,
  given: Pick<Video, 'title' | 'seriesId' | 'seriesFrom' | 'episode'>,
): Promise<string> {
  const id = newId();
  const now = new Date();
  await db('videos').insert({
    id,
    ...given,
    titleFrom: 'file',
    summary: '',
    createdAt: now,
    updatedAt: now,
  });
  return id;
}

/** One record; with `lock`, changes of others wait until the transaction ends. */
export async function videoById(db: Database, id: string, lock = false): Promise<Video | undefined> {
  const query = db('videos').where({ id }).first();
  const row: Row | undefined = await (lock ? query.forUpdate() : query);
  return row && fromRow(row);
}

/** The records named, in no order. */
export async function videosById(db: Database, ids: readonly string[]): Promise<Video[]> {
  const rows: Row[] = await db('videos').whereIn('id', [...ids]);
  return rows.map(fromRow);
}

export async function allVideos(db: Database): Promise<Video[]> {
  return (await db<Row>('videos').select().orderBy('id', 'desc')).map((row) => fromRow(row as Row));
}

/** Sets fields of a record. */
export async function setVideo(
  db: Database,
  id: string,
  fields: Partial<Omit<Video, 'id' | 'createdAt' | 'updatedAt'>>,
): Promise<void> {
  const entries = Object.entries(fields).map(([field, value]) => {
    const json = (JSON_FIELDS as readonly string[]).includes(field);
    return [field, json ? toJson(value) : (value ?? null)];
  });
  await db('videos')
    .where({ id })
    .update({ ...Object.fromEntries(entries), updatedAt: new Date() });
}

/** The records that a person has asked to delete and that are still here. */
export async function videosToDelete(db: Database): Promise<string[]> {
  const rows: { id: string }[] = await db('videos').whereNotNull('deleteAskedAt').select('id');
  return rows.map(({ id }) => id);
}

/** Deletes a record with everything that hangs on it. */
export async function deleteVideo(trx: Database, id: string): Promise<void> {
  const cuts: { id: string }[] = await trx('cuts').where({ videoId: id }).select('id');
  const pictures: { fileKey: string }[] = await trx('pictures').where({ videoId: id }).select('fileKey');
  const sounds: { fileKey: string }[] = await trx('sounds').where({ videoId: id }).select('fileKey');
  const cutIds = cuts.map((cut) => cut.id);
  const beside = [...pictures, ...sounds].map(({ fileKey }) => fileKey);
  await askToRemoveFiles(trx, [...(await fileKeysOf(trx, cutIds)), ...beside]);
  await cancelJobs(trx, [id, ...cutIds, ...(await renditionIdsOf(trx, cutIds))]);
  await giveUpEarlyUploads(trx, { videoId: id });
  await trx('changes').where({ subject: id }).delete();
  await trx('videos').where({ id }).delete();
}

/** The records that belong to a series. */
export async function videosOfSeries(db: Database, seriesId: string): Promise<string[]> {
  const rows: { id: string }[] = await db('videos').where({ seriesId }).select('id');
  return rows.map(({ id }) => id);
}

/** How many records each series has, by its id. */
export async function videosBySeries(db: Database): Promise<Map<string, number>> {
  const rows: { seriesId: string; videos: number }[] = await db('videos')
    .whereNotNull('seriesId')
    .groupBy('seriesId')
    .select({ seriesId: 'seriesId', videos: db.raw('COUNT(*)') });
  return new Map(rows.map(({ seriesId, videos }) => [seriesId, videos]));
}

/** The newest record of a series, or the newest at all. */
export async function newestVideo(db: Database, seriesId?: string): Promise<string | undefined> {
  const query = db('videos').orderBy('id', 'desc').first('id');
  const row: { id: string } | undefined = await (seriesId ? query.where({ seriesId }) : query);
  return row?.id;
}

/** Another video that went to a channel. */
export interface EarlierVideo extends Pick<Video, 'title' | 'own' | 'seriesId'> {
  channelId: string;
}

/** Other videos that went to the channels named, the newest first. */
export async function earlierVideos(
  db: Database,
  videoId: string,
  channelIds: readonly string[],
  most = 500,
): Promise<EarlierVideo[]> {
  const rows = await db('drops as d')
    .join('videos as v', 'v.id', 'd.videoId')
    .select({ channelId: 'd.channelId', title: 'v.title', own: 'v.own', seriesId: 'v.seriesId' })
    .whereIn('d.channelId', [...channelIds])
    .whereNot('d.videoId', videoId)
    .whereNotIn('d.state', ['draft', 'removed'])
    .orderBy('v.id', 'desc')
    .limit(most);
  return rows.map((row: { channelId: string; title: string; own: string | null; seriesId: string | null }) => ({
    ...row,
    own: fromJson<LayerValues>(row.own) ?? {},
    seriesId: row.seriesId ?? undefined,
  }));
}

/**
 * What layers are worked out from, of every video, with how many drops it has.
 * @param which only those of which something has not been sent, or that go nowhere yet
 */
export async function videosForLayers(
  db: Database,
  which: 'all' | 'unsent' = 'all',
): Promise<(Pick<Video, 'id' | 'title' | 'own' | 'seriesId'> & { drops: number })[]> {
  const query = db('videos as v')
    .leftJoin('drops as d', 'd.videoId', 'v.id')
    .groupBy('v.id')
    .select({ id: 'v.id', title: 'v.title', own: 'v.own', seriesId: 'v.seriesId', drops: db.raw('COUNT(d.id)') })
    .orderBy('v.id', 'desc');
  if (which === 'unsent') {
    query.havingRaw('COUNT(??) = 0 OR MAX(?? IN (?, ?))', ['d.id', 'd.state', 'draft', 'removed']);
  }
  const rows = await query;
  return rows.map((row: { id: string; title: string; own: string | null; seriesId: string | null; drops: number }) => ({
    ...row,
    own: fromJson<LayerValues>(row.own) ?? {},
    seriesId: row.seriesId ?? undefined,
  }));
}

/** The records that have an id, a link at a site, or exactly a title. */
export async function videosNamed(
  db: Database,
  by: { id: string } | { link: string } | { title: string } | { titleLike: string },
): Promise<Pick<Video, 'id' | 'title'>[]> {
  const query = db('videos').select('id', 'title').orderBy('id');
  if ('link' in by) {
    const led = db('drops').select('videoId').where({ link: by.link });
    // Also by a link to a video that another took the place of.
    return query.whereIn('id', led.orWhereRaw('JSON_CONTAINS(??, JSON_QUOTE(?))', ['formerLinks', by.link]));
  }
  // As the tables take them for the same, which is more than upper and lower case.
  if ('titleLike' in by) return query.where({ title: by.titleLike });
  // By its bytes: the tables' own order takes “a” and “A” for the same.
  if ('title' in by) return query.whereRaw('BINARY ?? = ?', ['title', by.title]);
  return query.where(by);
}

const MOST_WITHIN = 20;

/** The ids of videos whose title stands in a longer one, in any case, those with the longest title first, and a few at the most. */
export async function videosTitledWithin(db: Database, longer: string): Promise<string[]> {
  const rows: { id: string }[] = await db('videos')
    .whereNot('title', '')
    .whereRaw('INSTR(?, ??) > 0', [longer, 'title'])
    .orderByRaw('CHAR_LENGTH(??) DESC', ['title'])
    .limit(MOST_WITHIN)
    .select('id');
  return rows.map(({ id }) => id);
}

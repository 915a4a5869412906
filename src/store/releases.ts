import type { LayerValues } from '@/core/defaults';
import type { Moment } from '@/core/release';
import { type Database, fromJson } from './database';

/** A zone's wall time is at most so many hours from UTC, either way. */
const FURTHEST_HOURS = 15;

const wallNear = (instant: Date, hours: number) =>
  new Date(instant.getTime() + hours * 3_600_000).toISOString().slice(0, 19);

/**
 * The set times of a series' videos, for all of their channels or for one.
 * @param but a video whose own times do not count
 */
export async function momentsOfSeries(db: Database, seriesId: string, but = ''): Promise<Moment[]> {
  const ofSeries = db('videos').where({ seriesId }).whereNot({ id: but });
  const rows: { own: string }[] = await ofSeries
    .clone()
    .whereNotNull('opensWall')
    .select('own')
    .unionAll([db('drops').whereIn('videoId', ofSeries.clone().select('id')).whereNotNull('opensWall').select('own')]);
  return rows.flatMap(({ own }) => fromJson<LayerValues>(own)?.opensAt ?? []);
}

/**
 * The videos of which something has opened, or may be meant to open, from one instant up to another. A set time is kept as it
 * was said, so that some near the ends do not belong there.
 * @param most how many at the most
 */
export async function videosOpeningBetween(db: Database, from: Date, to: Date, most: number): Promise<string[]> {
  const walls = [wallNear(from, -FURTHEST_HOURS), wallNear(to, FURTHEST_HOURS)] as [string, string];
  const set = db('videos').select({ videoId: 'id' }).whereBetween('opensWall', walls);
  const onChannel = db('drops').select('videoId').whereBetween('opensWall', walls);
  const opened = db('drops').select('videoId').whereBetween('openedAt', [from, to]);
  const rows: { videoId: string }[] = await set.union([onChannel, opened]).limit(most);
  return rows.map(({ videoId }) => videoId);
}

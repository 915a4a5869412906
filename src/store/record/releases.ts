import type { LayerValues } from '@/core/defaults';
import type { Moment } from '@/core/release';
import { type Database, fromJson } from '@/store/database';

/** A zone's wall time is at most so many hours from UTC, either way. */
const FURTHEST_HOURS = 15;

const wallNear = (instant: Date, hours: number) =>
  new Date(instant.getTime() + hours * 3_600_000).toISOString().slice(0, 19);

const LAST_WALL = '9999-12-31T23:59:59';

/**
 * The set times of a series' videos from an instant on, for all of their channels or for one. Some near the ends are not
 * between them.
 * @param but a video whose own times do not count
 */
export async function momentsOfSeries(
  db: Database,
  seriesId: string,
  { from, to, but = '' }: { from: Date; to?: Date; but?: string },
): Promise<Moment[]> {
  const ofSeries = db('videos').where({ seriesId }).whereNot({ id: but });
  const last = to ? wallNear(to, FURTHEST_HOURS) : LAST_WALL;
  const walls = [wallNear(from, -FURTHEST_HOURS), last] as [string, string];
  const timed = ofSeries.clone().whereBetween('opensWall', walls).select('own');
  const onChannel = db('drops').whereIn('videoId', ofSeries.clone().select('id')).whereBetween('opensWall', walls);
  const rows: { own: string }[] = await timed.unionAll([onChannel.select('own')]);
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

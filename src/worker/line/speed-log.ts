import type { LineSpeed } from '@/store/drop/shape';

const EVERY_MILLISECONDS = 2000;
const MOST_POINTS = 240;

/** Every second point, each with the mean of two. */
const thinned = (points: readonly LineSpeed[]): LineSpeed[] =>
  points.flatMap((point, index) => {
    const next = points[index + 1];
    if (index % 2 === 1) return [];
    const bytesPerSecond = next ? Math.round((point.bytesPerSecond + next.bytesPerSecond) / 2) : point.bytesPerSecond;
    return [{ at: point.at, bytesPerSecond }];
  });

/**
 * How fast a line was over time, in so many points at the most: where it takes long, they lie further apart.
 * @param before points of a transfer that broke off
 */
export class SpeedLog {
  private points: LineSpeed[];
  private lastAt = Number.NEGATIVE_INFINITY;
  private every = EVERY_MILLISECONDS;

  constructor(before: readonly LineSpeed[] = []) {
    this.points = [...before];
  }

  /** Notes the speed now. The points are returned where there is a new one. @param now milliseconds since 1970 */
  note(bytesPerSecond: number, now: number): LineSpeed[] | undefined {
    if (now - this.lastAt < this.every) return undefined;
    this.lastAt = now;
    this.points.push({ at: new Date(now).toISOString(), bytesPerSecond: Math.round(bytesPerSecond) });
    if (this.points.length > MOST_POINTS) {
      this.points = thinned(this.points);
      this.every *= 2;
    }
    return this.points;
  }
}

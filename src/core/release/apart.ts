const HOUR_MILLISECONDS = 3_600_000;

/** A release on a channel. */
export interface ReleaseOn {
  videoId: string;
  channel: { id: string };
  /** In UTC. */
  at: string;
  /** Hours that are to lie between this and others there; 0 is none, as for what is out already. */
  hoursApart: number;
}

/** Whether another release lies nearer to one than that is to have: exactly so many hours are enough. */
export function isTooNear(one: ReleaseOn, other: Omit<ReleaseOn, 'hoursApart'>): boolean {
  if (one.videoId === other.videoId || one.channel.id !== other.channel.id) return false;
  const between = Math.abs(Date.parse(one.at) - Date.parse(other.at));
  return between < one.hoursApart * HOUR_MILLISECONDS;
}

/** Something that a site was asked that changes who sees a video, until it has answered. */
export interface AskedOfSight {
  /** What was asked: the privacy, with the time where it is one for later. */
  aim: string;
  /** When it was asked, ISO 8601 in UTC. */
  at: string;
  /** Tells it from others. */
  key: string;
}

/**
 * What was asked and may still take effect though its answer has not come: its worker may have been killed, or the line broken,
 * with the request on its way.
 * @param seconds how long a call may be on its way
 * @param now by the clock of the database
 */
export const mayStillArrive = (asked: readonly AskedOfSight[] = [], seconds: number, now: Date): AskedOfSight[] =>
  asked.filter(({ at }) => now.getTime() - Date.parse(at) < seconds * 1000);

/** What is kept of what may still arrive, with one more: of each aim the last two, since the last alone may be answered. */
export function askedOnceMore(open: readonly AskedOfSight[], more: AskedOfSight): AskedOfSight[] {
  const last = open.findLast(({ aim }) => aim === more.aim);
  return [...open.filter((each) => each.aim !== more.aim || each === last), more];
}

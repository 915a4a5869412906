import type { PartsGiven } from '@/core/parts';
import type { GivenPart } from '@/store/drop/parts';

/** Everything that a drop’s site had after it was given something. */
export interface GivenBefore {
  /** Of the last part that was given then. */
  id: number;
  at: Date;
  parts: PartsGiven;
}

/** What a site had after each time that it was given parts, the newest first. @param given the oldest first */
export function givenBefore(given: readonly GivenPart[]): GivenBefore[] {
  const times: GivenBefore[] = [];
  let [key, parts]: [string, PartsGiven] = ['', {}];
  for (const { id, at, part, value, askedKey } of given) {
    parts = { ...parts, [part]: value };
    if (askedKey === key) times.shift();
    times.unshift({ id, at, parts });
    key = askedKey;
  }
  return times;
}

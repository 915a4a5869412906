/** How a release comes about, as a record means it. */
export type ReleaseWay = 'by itself' | 'on my word' | 'at a time' | 'together' | 'first showing';

/** Whether a release may have a set time. */
export const isTimed = (way: ReleaseWay): boolean =>
  way === 'at a time' || way === 'together' || way === 'first showing';

/** What decides when a drop that is held opens. */
export interface HeldDrop {
  way: ReleaseWay;
  /** The set time, where there is one. */
  instant: Date | undefined;
  /** When a person's word takes effect, where it was given. */
  wordAt: Date | undefined;
  /** Of those that it goes out with: the channels at which the video is not checked yet. */
  notChecked: readonly string[];
}

/** What becomes of a drop that is held. */
export type Opening =
  /** It opens; its moment came so long ago. */
  | { does: 'open'; moment: Date }
  | { does: 'wait'; until: Date }
  /** Nothing but what somebody does, or what becomes of other drops, opens it. */
  | { does: 'wait'; until: undefined; for: 'a word' | 'the others' };

/**
 * When a drop that is held opens: by a person's word, whatever else was said; at its time; and together with others, none
 * before all are checked.
 * @param now the one clock that all machines share
 */
export function openingOf({ way, instant, wordAt, notChecked }: HeldDrop, now: Date): Opening {
  if (wordAt) return at(wordAt, now);
  if (way === 'together' && notChecked.length > 0) return { does: 'wait', until: undefined, for: 'the others' };
  if (way === 'together') return at(instant ?? now, now);
  if ((way === 'at a time' || way === 'first showing') && instant) return at(instant, now);
  return { does: 'wait', until: undefined, for: 'a word' };
}

const at = (moment: Date, now: Date): Opening =>
  moment <= now ? { does: 'open', moment } : { does: 'wait', until: moment };

/** Whether a moment was missed by more than what was said to be all right. @param lateAtMost hours */
export const isMissed = (moment: Date, now: Date, lateAtMost: number): boolean =>
  now.getTime() - moment.getTime() > lateAtMost * 3_600_000;

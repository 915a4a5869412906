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
  /** Whether a person has agreed to this release: it was sent with it, or its moment was still to come when it was set. */
  isAgreed: boolean;
}

/** What becomes of a drop that is held. */
export type Opening =
  /** It opens; its moment came so long ago. */
  | { does: 'open'; moment: Date }
  /** Its moment was over already when it was set: that it was chosen opens nothing. */
  | { does: 'ask'; moment: Date }
  | { does: 'wait'; until: Date }
  /** Nothing but what somebody does, or what becomes of other drops, opens it. */
  | { does: 'wait'; until: undefined; for: 'a word' | 'the others' };

/**
 * When a drop that is held opens: by a person's word, whatever else was said; at its time; and together with others, none
 * before all are checked. A release that was only chosen, and would open it at once, opens nothing.
 * @param now the one clock that all machines share
 */
export function openingOf({ way, instant, wordAt, notChecked, isAgreed }: HeldDrop, now: Date): Opening {
  if (wordAt) return at(wordAt, now);
  if (way === 'together' && notChecked.length > 0) return { does: 'wait', until: undefined, for: 'the others' };
  if (isTimed(way) && instant) return isAgreed || now < instant ? at(instant, now) : { does: 'ask', moment: instant };
  if (way === 'together' && isAgreed) return at(now, now);
  return { does: 'wait', until: undefined, for: 'a word' };
}

const at = (moment: Date, now: Date): Opening =>
  moment <= now ? { does: 'open', moment } : { does: 'wait', until: moment };

/** Whether a moment was missed by more than what was said to be all right. @param lateAtMost hours */
export const isMissed = (moment: Date, now: Date, lateAtMost: number): boolean =>
  now.getTime() - moment.getTime() > lateAtMost * 3_600_000;

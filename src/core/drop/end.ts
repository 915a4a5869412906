import type { Privacy } from '../delivery';

/** Where a drop is meant to end: who may see the video once it is live. Each is an end at which a drop is done. */
export type End = Privacy;
/** Ends at which somebody else sees it. */
export type OpenEnd = Exclude<End, 'private'>;

/** To whom a video is opened that may be; what nobody else sees has nothing to open. */
export const openEnd = (end: End): OpenEnd => (end === 'private' ? 'everyone' : end);

const WIDTH: Record<Privacy, number> = { private: 0, password: 1, link: 2, everyone: 3 };

/** Whether more people may see a video at the first than at the second. */
export const isWider = (a: Privacy, b: Privacy): boolean => WIDTH[a] > WIDTH[b];

/** Whether others than its owner may see a video. @param openedTo undefined where it was never opened */
export const isOpenTo = (openedTo: Privacy | undefined): boolean =>
  openedTo !== undefined && isWider(openedTo, 'private');

/** The one of two at which fewer people may see a video. */
export const narrower = (a: Privacy, b: Privacy): Privacy => (isWider(a, b) ? b : a);

/**
 * Who may see a video while it is not proofed: nobody, or where it was opened before, those whom it was opened to, as far
 * as they still may.
 * @param openedTo the widest that the site may be showing it to; undefined where it was never opened
 */
export const privacyBeforeProof = (openedTo: Privacy | undefined, end: End): Privacy =>
  narrower(openedTo ?? 'private', end);

/** How a drop's last step is to be made. */
export interface EndWanted {
  end: End;
  openedTo: Privacy | undefined;
  /** Whether it opens as soon as it is checked. */
  opensAlone: boolean;
  /** Whether its moment has come: by a person's word, at its time, or together with others. */
  letGo: boolean;
}

/**
 * Whether a drop that was read back, and is as it was meant, may go on to its end: where that shows it to nobody new, where
 * it opens by itself, or where it was let go. Otherwise it is held.
 */
export function mayGoToEnd({ end, openedTo, opensAlone, letGo }: EndWanted): boolean {
  return !isWider(end, openedTo ?? 'private') || opensAlone || letGo;
}

import type { Privacy } from '../delivery';

/** Where a drop is meant to end: who may see the video once it is live. Each is an end at which a drop is done. */
export type End = Privacy;
/** Ends at which somebody else sees it. */
export type OpenEnd = Exclude<End, 'private'>;

/** To whom a video is opened that may be; what nobody else sees has nothing to open. */
export const openEnd = (end: End): OpenEnd => (end === 'private' ? 'everyone' : end);

/** To whom a video is open, as a sentence ends with it. */
export const OPEN_TO: Record<OpenEnd, string> = {
  everyone: 'to everyone',
  link: 'by link',
  password: 'with a password',
};

const WIDTH: Record<Privacy, number> = { private: 0, password: 1, link: 2, everyone: 3 };

/** Whether more people may see a video at the first than at the second. */
export const isWider = (a: Privacy, b: Privacy): boolean => WIDTH[a] > WIDTH[b];

/** Whether others than its owner may see a video. @param openedTo undefined where it was never opened */
export const isOpenTo = (openedTo: Privacy | undefined): boolean =>
  openedTo !== undefined && isWider(openedTo, 'private');

/** The one of two at which fewer people may see a video. */
export const narrower = (a: Privacy, b: Privacy): Privacy => (isWider(a, b) ? b : a);

/**
 * Who may see a video while it is not proofed: nobody, or where it is open, those to whom the site says it is, as far as they
 * still may. What was asked for and not confirmed opens nothing.
 * @param confirmedTo to whom the site has said that it shows it; undefined where it never was open
 */
export const privacyBeforeProof = (confirmedTo: Privacy | undefined, end: End): Privacy =>
  narrower(confirmedTo ?? 'private', end);

/** How a drop's last step is to be made. */
export interface EndWanted {
  end: End;
  /** To whom the site has said that it shows it; undefined where it never was open. */
  confirmedTo: Privacy | undefined;
  /** Whether it opens as soon as it is checked. */
  opensAlone: boolean;
  /** Whether its moment has come: by a person's word, at its time, or together with others. */
  letGo: boolean;
}

/**
 * Whether a drop that was read back, and is as it was meant, may go on to its end: where that shows it to nobody new, where
 * it opens by itself, or where it was let go. Otherwise it is held.
 */
export function mayGoToEnd({ end, confirmedTo, opensAlone, letGo }: EndWanted): boolean {
  return !isWider(end, confirmedTo ?? 'private') || opensAlone || letGo;
}

import { BUTTONS } from './button-words';
/** What is asked before something is done that others will see. */
export interface Question {
  title: string;
  /** What follows, a sentence each. */
  follows: readonly string[];
  /** What the button says that does it. */
  yes: string;
  /** What the button says that does not. */
  no?: string;
}

/**
 * What is asked before a video is opened.
 * @param channels where, by name
 * @param end whether to everyone, or by link only
 */
export function questionBeforeOpening(channels: readonly string[], end: 'everyone' | 'link'): Question {
  const where = new Intl.ListFormat('en').format(channels);
  const told = 'Subscribers may be told at once, and that cannot be taken back.';
  return {
    title: end === 'link' ? `Open it by link on ${where}?` : `Open it to everyone on ${where}?`,
    follows: [
      'It waits a few seconds first, so that you can still stop it.',
      end === 'link' ? 'After that, whoever has the link can see it.' : `After that, everyone can see it. ${told}`,
    ],
    yes: BUTTONS.openIt,
  };
}

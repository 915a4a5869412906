import { OPEN_TO, type OpenEnd } from '@/core/drop';
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
export function questionBeforeOpening(channels: readonly string[], end: OpenEnd): Question {
  const where = new Intl.ListFormat('en').format(channels);
  const told = 'Subscribers may be told at once, and that cannot be taken back.';
  return {
    title: `Open it ${OPEN_TO[end]} on ${where}?`,
    follows: [
      'It waits a few seconds first, so that you can still stop it.',
      end === 'everyone'
        ? `After that, everyone can see it. ${told}`
        : `After that, whoever has the ${end === 'link' ? 'link' : 'link and the password'} can see it.`,
    ],
    yes: BUTTONS.openIt,
  };
}

/** What is asked before something goes up as a new video, of which somebody may have copied the link already. */
export function questionBeforeAnotherLink(siteName: string): Question {
  return {
    title: `Send it to ${siteName} as a new video?`,
    follows: [
      'It gets another link. A link that you have copied or given away stops working.',
      'You still find it here by the old link, on the Board.',
    ],
    yes: 'Send it',
  };
}

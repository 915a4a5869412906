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

/** What is asked before a video is opened to everyone. */
export const questionBeforeOpening = (channel: string, site: string): Question => ({
  title: `Open it to everyone on ${channel}?`,
  follows: [`Everyone can see it on ${site} from then on. Subscribers may be told at once.`],
  yes: BUTTONS.openIt,
});

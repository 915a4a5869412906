import type { Hosted } from '../shared/hosted';

/** A post as Pipwire keeps it. */
export interface Post extends Hosted {
  words: string;
  /** The moment whose picture stands for the clip, in seconds; the middle where it is not set. */
  moment?: number;
  out: boolean;
}

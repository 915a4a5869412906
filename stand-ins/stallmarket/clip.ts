import type { Hosted } from '../shared/hosted';

/** A clip as Stallmarket keeps it. */
export interface Clip extends Hosted {
  title: string;
  text: string;
  /** Of catalogue products, by number. */
  products: string[];
  review: 'none' | 'waiting' | 'approved' | 'declined';
  /** When the review is decided, in UTC milliseconds. */
  decidedAt?: number;
  /** When an approved clip is shown, in UTC milliseconds. */
  shownAt?: number;
  declined?: { reason: string; remedy: string };
}

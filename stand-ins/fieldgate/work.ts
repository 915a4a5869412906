import type { Hosted } from '../shared/hosted';

/** How Fieldgate calls who may see a work. */
export type Audience = 'public' | 'address' | 'password' | 'me';

/** A work as Fieldgate keeps it. */
export interface Work extends Hosted {
  headline: string;
  about: string;
  keywords: string[];
  audience: Audience;
  /** Salted and hashed, where it is shown with a password. */
  passwordHash?: string;
  /** The work that its file came from, where it was replaced. */
  fileFrom?: string;
  credits: { role: string; name: string }[];
  /** The chapter file, as WebVTT. */
  chapters?: string;
}

import type { CutFacts, CutMeasures, CutSpan, SiteRules } from '../delivery';
import type { Fraction } from '../time';

/** How bad a finding is: it stops the drop, it warns, or it is worth knowing. */
export const LEVELS = ['stops', 'warns', 'note'] as const;
export type Level = (typeof LEVELS)[number];

/** Something that was found in a file before it goes anywhere. */
export interface Finding {
  /** What was looked for, by a name that stays. */
  rule: string;
  level: Level;
  /** Of a site's own rule, the site's name. */
  site?: string;
  /** Where it stands on the ruler. */
  span?: CutSpan;
  what: string;
  /** Why it matters. */
  why: string;
  /** What can be done. */
  remedy: string;
}

/** A finding that a person says is meant, for the file that it was found in. */
export interface WavedThrough {
  rule: string;
  cutId: string;
  /** What they said; '' where nothing. */
  reason: string;
}

/** What a file is judged by. */
export interface PreflightInput {
  facts: CutFacts;
  /** Undefined until it is measured. */
  measures: CutMeasures | undefined;
  /** The part of the edit that was exported, where a person said it: exact seconds of the time line. */
  edit?: { from: Fraction; to: Fraction };
  /** The sites that it goes to. */
  sites: readonly Pick<SiteRules, 'name' | 'file'>[];
}

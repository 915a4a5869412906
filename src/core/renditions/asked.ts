import type { CutFacts, CutMeasures, SiteRules } from '../delivery';
import type { Framings } from '../framing';
import type { Remedies } from './remedies';
import type { FileSet } from './settings';

/** A cut as plans need it. */
export interface CutToSend {
  facts: CutFacts;
  /** Undefined until it is measured. */
  measures: CutMeasures | undefined;
}

/** What one channel asks of a file. */
export interface Asked {
  site: Pick<SiteRules, 'name' | 'file'>;
  /** The settings in force there; undefined keeps the cut as it is wherever that can be. */
  set: FileSet | undefined;
  remedies: Remedies;
  /** Where a person has put the frame of each shape; it stays in the middle where not given. */
  framings?: Framings;
}

/** Why no file can be made that serves a channel, and what comes nearest. */
export interface Refusal {
  refused: string;
  nearest: string;
}

import type { DeclarationField } from '../declarations';
import type { FitPlace } from '../fitting';

/** A place on the Sheet that leads to something. */
export type SheetPlace =
  | 'cut'
  | FitPlace
  | 'picture'
  | 'captions'
  | 'privacy'
  | 'markers'
  | `declared-${DeclarationField}`;

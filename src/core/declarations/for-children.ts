import type { Declarations } from './declarations';

/** Something that is off because a video is aimed at children: the field, and what of it, in words. */
export interface SwitchedOff {
  field: keyof Declarations;
  what: string;
}

/**
 * The declarations as they go out: aimed at children switches off what may then not be on. What was set stays in the
 * record, and comes back when the answer changes.
 */
export function declarationsInForce(set: Declarations): { declarations: Declarations; switchedOff: SwitchedOff[] } {
  if (set.forChildren !== true) return { declarations: set, switchedOff: [] };
  const switchedOff: SwitchedOff[] = [];
  const declarations = { ...set };
  if (set.adverts === 'by interest') {
    declarations.adverts = 'by context';
    switchedOff.push({ field: 'adverts', what: 'adverts by interest' });
  }
  return { declarations, switchedOff };
}

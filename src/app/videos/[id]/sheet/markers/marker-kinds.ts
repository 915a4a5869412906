import type { MarkerKind } from '@/core/chapters';

/** Whether viewers see a marker, in words. */
export const MARKER_KINDS: readonly (readonly [MarkerKind, string])[] = [
  ['by choice', 'by colour'],
  ['chapter', 'always'],
  ['note', 'never'],
];

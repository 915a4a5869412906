import type { Difference } from './proof';

/** A field in which a site shows something else than was meant, told once it is live. */
export interface Shown extends Difference {
  /** A person has said that it may stay so. */
  left?: true;
}

const same = (a: Difference, b: Difference): boolean =>
  a.field === b.field && a.shown === b.shown && a.meant === b.meant;

/**
 * What is kept of a reading: each difference, with those that a person has left as they are.
 * @returns `fresh`: those that nobody has been told of
 */
export function shownNow(
  before: readonly Shown[],
  found: readonly Difference[],
): { all: Shown[]; fresh: Difference[] } {
  const all = found.map((each): Shown => {
    const known = before.find((other) => same(other, each));
    return known?.left ? { ...each, left: true } : { ...each };
  });
  return { all, fresh: found.filter((each) => !before.some((other) => same(other, each))) };
}

/** The differences that somebody has still to decide on. */
export const undecided = (shows: readonly Shown[] = []): Shown[] => shows.filter(({ left }) => !left);

/** Fields that a record can take over as a site shows them. */
const TAKEN_OVER: readonly string[] = ['title', 'description', 'chapters', 'tags', 'playlist'];

/**
 * Whether a record can take over all that a site shows otherwise.
 * @param chaptersInText whether chapters stand in the text there, and go along with it
 */
export function mayTakeOver(differences: readonly Difference[], chaptersInText: boolean): boolean {
  const fields = differences.map(({ field }) => field);
  if (fields.includes('chapters') && !(chaptersInText && fields.includes('description'))) return false;
  return fields.length > 0 && fields.every((field) => TAKEN_OVER.includes(field));
}

import { partNames } from './registry';
import { isSame } from './same';
import type { PartName, PartsShown } from './values';
import { type Difference, differencesOf } from './walk';

/** Whether a difference waits for somebody, or was left as it is. */
export type Differs = 'open' | 'left';

/** What a reading has found of one part: what it shows where that is not what it is to show. */
export interface ShownPart {
  shown: unknown;
  differs: Differs;
}

/** What is kept of the parts that a site shows otherwise. */
export type ShownOtherwise = { readonly [N in PartName]?: ShownPart };

/** What was read of a part that its site does not show at all. */
const NOTHING = null;

/**
 * What is kept of a reading: each part that is shown otherwise, with those that a person has left as they are.
 * @param before what was kept of the reading before
 * @param meant what the site is to show
 * @returns `fresh`: the fields that nobody has been told of
 */
export function shownNow(
  before: ShownOtherwise,
  meant: PartsShown,
  shown: PartsShown,
): { kept: ShownOtherwise; fresh: Difference[] } {
  const kept: { [N in PartName]?: ShownPart } = {};
  const fresh: Difference[] = [];
  for (const part of partNames()) {
    const expected = meant[part];
    if (expected === undefined) continue;
    const lines = differencesOf(part, expected as never, shown[part] as never);
    if (lines.length === 0) continue;
    const known = before[part];
    const stays = known !== undefined && isSame(known.shown, shown[part] ?? NOTHING);
    kept[part] = { shown: shown[part] ?? NOTHING, differs: stays ? known.differs : 'open' };
    const told = known ? differencesOf(part, expected as never, (known.shown ?? undefined) as never) : [];
    fresh.push(...lines.filter((line) => !told.some((each) => isSame(each, line))));
  }
  return { kept, fresh };
}

/** A difference with whether a person has said that it may stay so. */
export interface ShownDifference extends Difference {
  left?: true;
}

/** The fields in which a site was last seen to show something else, with those that were left as they are. */
export function shownDifferences(kept: ShownOtherwise, meant: PartsShown): ShownDifference[] {
  return partNames().flatMap((part) => {
    const at = kept[part];
    const expected = meant[part];
    if (!at || expected === undefined) return [];
    const lines = differencesOf(part, expected as never, (at.shown ?? undefined) as never);
    return at.differs === 'left' ? lines.map((line) => ({ ...line, left: true as const })) : lines;
  });
}

/** The differences that somebody has still to decide on. */
export const undecided = <D extends { left?: true }>(shown: readonly D[] = []): D[] =>
  shown.filter(({ left }) => !left);

/** Parts in which a site shows something else that nobody has decided on. */
export const undecidedParts = (kept: ShownOtherwise): PartName[] =>
  partNames().filter((name) => kept[name]?.differs === 'open');

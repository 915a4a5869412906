import type { SiteRules } from '../delivery';
import type { Part, PartLine, WantedFrom } from './part';
import { PARTS, partNames } from './registry';
import type { PartName, PartsGiven, PartsShown, PartValues, ShownValues } from './values';

/**
 * A part as those see it who walk all of them: which values belong to it, its name says, and nothing else can.
 * @param name of the part
 */
type AnyPart = Part<PartName>;
export const partOf = (name: PartName): AnyPart => PARTS[name] as unknown as AnyPart;

/** What a site is meant to get, part by part; parts that the site does not have are not among it. */
export function wantedParts(from: WantedFrom, site: SiteRules): PartsGiven {
  const wanted = partNames().map((name) => [name, partOf(name).wanted(from, site)] as const);
  return Object.fromEntries(wanted.filter(([, value]) => value !== undefined)) as PartsGiven;
}

/** What keeps parts from a site, in words, each at its part: a last look, whichever way they came. */
export function partFindings(wanted: PartsGiven, site: SiteRules): { part: PartName; what: string }[] {
  return partNames().flatMap((part) => {
    const value = wanted[part];
    const what = value === undefined ? undefined : partOf(part).finding?.(value, site);
    return what ? [{ part, what }] : [];
  });
}

/** Of values by their parts, those of the parts named. */
export const onlyParts = <V extends object>(values: V, parts: readonly PartName[]): Partial<V> =>
  Object.fromEntries(Object.entries(values).filter(([part]) => parts.includes(part as PartName))) as Partial<V>;

/** What is known of one part at a site: what it has confirmed, and what it was asked since and has not answered. */
export interface PartAtSite {
  given?: PartValues[PartName];
  asked?: PartValues[PartName];
  /** Why it could not be given when it was tried last. */
  failed?: string;
}
export type PartsAtSite = { readonly [N in PartName]?: PartAtSite };

/** Whether a value is that of a video which was never given any. */
const isNone = (value: PartValues[PartName]): boolean =>
  value === '' ||
  (Array.isArray(value) && value.length === 0) ||
  ('lines' in Object(value) && isNone(Object(value).lines));

/**
 * The parts that a site does not have as they are wanted: those that were never confirmed, that are others than before, and that
 * it was asked to take without an answer. Asked is not confirmed: what was asked may have been taken, and is given once more.
 */
export function partsToGive(there: PartsAtSite, wanted: PartsGiven): PartName[] {
  return partNames().filter((name) => {
    const [value, at] = [wanted[name], there[name]];
    if (value === undefined) return false;
    // A video that was never given one has none.
    if (!at) return !isNone(value);
    return at.given === undefined || at.asked !== undefined || !partOf(name).same(at.given, value);
  });
}

/**
 * Whether a site has confirmed every part as it is wanted, but for those that could not be given and need not be right before
 * people see the video: they are tried again by themselves.
 */
export const hasAll = (there: PartsAtSite, wanted: PartsGiven): boolean =>
  partsToGive(there, wanted).every((name) => !partOf(name).mustBeRight && there[name]?.failed !== undefined);

/** Parts with the values that a site has confirmed. */
export const givenParts = (there: PartsAtSite): PartsGiven =>
  Object.fromEntries(
    partNames().flatMap((name) => (there[name]?.given === undefined ? [] : [[name, there[name].given]])),
  );

/** A field that goes out with another value than it had. */
export interface ChangedField extends PartLine {
  part: PartName;
}

/**
 * The fields in which what would go to a site differs from what it was given, in the order of the Sheet.
 * @param titleOf the title of a playlist by its site id
 */
export function changedFields(was: PartsGiven, is: PartsGiven, titleOf: (id: string) => string): ChangedField[] {
  return partNames().flatMap((part) => {
    const value = is[part];
    return value === undefined
      ? []
      : partOf(part)
          .changes(was[part], value, titleOf)
          .map((line) => ({ part, ...line }));
  });
}

/** Parts with texts that a search finds. */
export const partsWithTexts = (): PartName[] => partNames().filter((part) => partOf(part).texts);

/** One field in which a site shows something else than was meant, both in words. */
export interface Difference {
  part: PartName;
  field: string;
  meant: string;
  shown: string;
}

/** What a site that was given these is to show; parts that are not compared are not among it. */
export function expectedOf(given: PartsGiven, site: SiteRules): PartsShown {
  return Object.fromEntries(
    partNames().flatMap((name) => {
      const value = given[name];
      const expected = value === undefined ? undefined : partOf(name).expected(value, site);
      return expected === undefined ? [] : [[name, expected]];
    }),
  );
}

/** In what one part is shown otherwise than it was meant. */
export const differencesOf = <N extends PartName>(
  part: N,
  meant: ShownValues[N],
  shown: ShownValues[N] | undefined,
): Difference[] =>
  PARTS[part].differences(meant, shown).map(({ field, was, is }) => ({ part, field, meant: was, shown: is }));

/** The fields in which what a site shows differs from what it is to show, in the order of the Sheet. */
export function differences(meant: PartsShown, shown: PartsShown): Difference[] {
  return partNames().flatMap((part) => {
    const expected = meant[part];
    return expected === undefined ? [] : differencesOf(part, expected as never, shown[part] as never);
  });
}

/** What a site that shows this was given, of the parts named, as far as one can tell. */
export function givenAsShown(parts: readonly PartName[], shown: PartsShown, given: PartsGiven): PartsGiven {
  return Object.fromEntries(
    parts.flatMap((name) => {
      const value = partOf(name).asGiven?.(shown[name] as never, given[name]);
      return value === undefined ? [] : [[name, value]];
    }),
  );
}

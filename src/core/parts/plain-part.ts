import type { Part, PartLine } from './part';
import { isSame } from './same';
import type { PartName, PartValues, ShownValues } from './values';

/** Parts that a site shows just as it was given them. */
type PlainName = { [N in PartName]: PartValues[N] extends ShownValues[N] ? N : never }[PartName];

/** What a part says of itself where it is read just as it was given. */
interface PlainPart<N extends PlainName>
  extends Omit<Part<N>, 'same' | 'changes' | 'expected' | 'differences'>,
    Partial<Pick<Part<N>, 'same' | 'expected'>> {
  /** A value in words, '' for nothing. @param titleOf the title of a playlist by its site id */
  inWords(value: PartValues[N], titleOf: (id: string) => string): string;
}

/** A part that is read just as it was given, with one line of words. */
export function plainPart<N extends PlainName>({ inWords, ...part }: PlainPart<N>): Part<N> {
  const same = part.same ?? isSame;
  const say = (value: PartValues[N] | undefined, titleOf: (id: string) => string) =>
    value === undefined ? '' : inWords(value, titleOf);
  return {
    expected: (value) => value as unknown as ShownValues[N],
    asGiven: (shown, given) => (shown ?? emptied(given)) as PartValues[N],
    ...part,
    same,
    changes: (was, is, titleOf) =>
      was !== undefined && same(was, is) ? [] : oneLine(part.label, say(was, titleOf), say(is, titleOf)),
    differences: (meant, shown) => {
      const [was, is] = [meant as unknown as PartValues[N], shown as unknown as PartValues[N] | undefined];
      if (is !== undefined && same(was, is)) return [];
      return oneLine(
        part.label,
        say(was, (id) => id),
        is === undefined ? 'nothing' : say(is, (id) => id),
      );
    },
  };
}

const oneLine = (field: string, was: string, is: string): PartLine[] => (was === is ? [] : [{ field, was, is }]);

/** Nothing, in the form of a value. */
const emptied = (value: unknown): unknown => (Array.isArray(value) ? [] : typeof value === 'object' ? {} : '');

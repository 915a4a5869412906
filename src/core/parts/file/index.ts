import type { Part } from '../part';

/** The first signs of a digest tell two files apart for those who read it. */
const brief = (digest: string) => digest.slice(0, 12);

/** The file is carried, not given: here it is only compared. */
export const file: Part<'file'> = {
  label: 'file',
  place: 'cut',
  mustBeRight: true,
  wanted: () => undefined,
  same: (a, b) => a === b,
  changes: () => [],
  expected: (value) => value,
  differences: (meant, shown) =>
    meant === shown ? [] : [{ field: 'file', was: brief(meant), is: shown ? brief(shown) : 'nothing' }],
};

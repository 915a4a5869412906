/** A value before and after a change, as JSON. */
interface Step {
  before: string;
  after: string;
}

const isFields = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The parts of a value that a change alters, by their paths; undefined where it makes or takes away what has parts. */
function partsOf(was: unknown, is: unknown, path = ''): string[] | undefined {
  if (JSON.stringify(was) === JSON.stringify(is)) return [];
  // Nobody types a list: each thing that is put in or taken off is a step of its own.
  if (Array.isArray(was) || Array.isArray(is)) return undefined;
  if (!isFields(was) && !isFields(is)) return [path];
  if (!isFields(was) || !isFields(is)) return path === '' ? partsOf(was ?? {}, is ?? {}) : undefined;
  const parts = [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .sort()
    .map((key) => partsOf(was[key], is[key], `${path}.${key}`));
  return parts.every((each) => each !== undefined) ? parts.flat() : undefined;
}

const read = ({ before, after }: Step) => partsOf(JSON.parse(before), JSON.parse(after));

/** Whether a change goes on with the last one: from where that ended, and in no part that it had not touched. */
export function goesOn(last: Step, next: Step): boolean {
  const [earlier, parts] = [read(last), read(next)];
  return last.after === next.before && parts !== undefined && parts.every((part) => earlier?.includes(part) ?? false);
}

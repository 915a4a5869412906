/** A value before and after a change, as JSON. */
interface Step {
  before: string;
  after: string;
}

/** The parts of a value that a change alters; none where the value is one piece. */
function partsOf({ before, after }: Step): string[] {
  const [was, is] = [JSON.parse(before), JSON.parse(after)];
  if (typeof is !== 'object' || is === null) return [];
  const changed = (key: string) => JSON.stringify(was?.[key]) !== JSON.stringify(is[key]);
  return Object.keys({ ...was, ...is })
    .filter(changed)
    .sort();
}

/** Whether a change goes on with the last one: from where that ended, and in the same parts. */
export function goesOn(last: Step, next: Step): boolean {
  return last.after === next.before && partsOf(last).join() === partsOf(next).join();
}

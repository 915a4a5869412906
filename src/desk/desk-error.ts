/** What went wrong at the desk, told so that a page and the command line can say it as it is. */
export type DeskErrorKind = 'not found' | 'not taken' | 'not now' | 'changed' | 'full' | 'site';

/** Something that a manager asked for and that cannot be; the message says what was wrong and what to do next. */
export class DeskError extends Error {
  override name = 'DeskError';
  constructor(
    readonly kind: DeskErrorKind,
    message: string,
  ) {
    super(message);
  }
}

/** A field that somebody else has changed since the value that a change was made on; nothing of the change is kept. */
export class ChangedMeanwhile extends DeskError {
  override name = 'ChangedMeanwhile';
  /**
   * @param now the value that the field has now
   * @param id of a marker, which
   */
  constructor(
    readonly field: string,
    readonly now: unknown,
    readonly id?: string,
  ) {
    super('changed', 'This was changed in another window meanwhile.');
  }
}

/** The thing, or a DeskError that says that it is not there. */
export function found<T>(thing: T | undefined, name: string): T {
  if (thing === undefined) throw new DeskError('not found', `There is no such ${name}; it may have been deleted.`);
  return thing;
}

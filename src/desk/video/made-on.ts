import { object } from 'yup';
import { ChangedMeanwhile } from '../desk-error';
import { givenFields } from '../layers/values-shape';

/** The values that fields had where a change was made, by field; what is not named is not looked at. */
export type MadeOn = Record<string, unknown>;

export const madeOnShape = object().typeError('What a change was made on is given by field.').default({});

/** Fields that are given, apart from `on`, the values that they were changed from. @throws ValidationError */
export async function partedOn(input: unknown): Promise<{ on: MadeOn; fields: Record<string, unknown> }> {
  const { on, ...fields } = await givenFields(input);
  return { on: await madeOnShape.validate(on), fields };
}

/** A value for comparing; white space at the ends of a text is often taken off where it is kept. */
const comparable = (value: unknown) => JSON.stringify(typeof value === 'string' ? value.trim() : (value ?? null));

/**
 * Sees that a field still has the value that a change of it was made on, or has the wished one already, as where the same is
 * sent once more.
 * @param id of what has several such fields, which it is
 * @throws ChangedMeanwhile
 */
export function checkUnchanged(on: MadeOn, field: string, now: unknown, wished: unknown, id?: string): void {
  if (!Object.hasOwn(on, field)) return;
  const is = comparable(now);
  if (is !== comparable(on[field]) && is !== comparable(wished)) throw new ChangedMeanwhile(field, now ?? null, id);
}

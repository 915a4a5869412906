import type { DropState } from './life';

/** Why a site puts a drop off: it asks to wait, it does not answer, or something happened that nobody expected. */
export const PUT_OFFS = ['busy', 'unreachable', 'unexpected'] as const;
export type PutOff = (typeof PUT_OFFS)[number];

/**
 * After how many minutes a drop that is put off again and again needs a person, while it still goes on trying. A site that
 * asks to wait knows why; a line that is gone is often back soon; what nobody expected will hardly mend itself.
 */
export const PATIENCE_MINUTES: Record<PutOff, number> = { busy: 15, unreachable: 10, unexpected: 2 };

/** What is not opened at its moment is told at once. */
const patienceOf = (by: PutOff, state: DropState) => (state === 'opening' ? 0 : PATIENCE_MINUTES[by]);

/**
 * Minutes for which a drop has been put off, where that is longer than it should be; undefined where all is well.
 * @param since when it has waited without a break
 * @param by what it waits for
 * @param state where it stands
 * @param now the same clock as `since`
 */
export function overdueMinutes(
  since: Date | undefined,
  by: PutOff | undefined,
  state: DropState,
  now: Date,
): number | undefined {
  if (!since || !by) return undefined;
  const minutes = Math.floor((now.getTime() - since.getTime()) / 60_000);
  return minutes >= patienceOf(by, state) ? minutes : undefined;
}

import type { Knex } from 'knex';

const AT_ONCE = 1000;

/**
 * Deletes rows some at a time, so that whoever writes beside it never waits for long. Where it is ended, the rest goes with the
 * next time.
 * @param rows those that are to go, found by an index; asked for anew each time
 * @returns how many there were
 */
export async function deleteInSteps(rows: () => Knex.QueryBuilder): Promise<number> {
  for (let all = 0; ; ) {
    const count: number = await rows().limit(AT_ONCE).delete();
    all += count;
    if (count < AT_ONCE) return all;
  }
}

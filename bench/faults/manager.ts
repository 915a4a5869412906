import { setTimeout as pause } from 'node:timers/promises';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { lookAtStatus } from '@/desk/views/look';
import { database } from '@/store/database';
import { connectAs } from '../../demo/sign-in';
import { YARD } from '../../tests/setup/desk';

const LOOK_MILLISECONDS = 700;

/** Does something at the desk until it is done: the database may be away at any moment. */
export async function insist<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await work();
    } catch (error) {
      if (tries === 60) throw error;
      await pause(500);
    }
  }
}

/** What a manager does on such a day: connects what was taken back, and tries again what has a snag. */
export async function manage(ending: AbortSignal): Promise<void> {
  while (!ending.aborted) {
    try {
      const taken: { site: string }[] = await database()('accounts').where({ state: 'taken back' }).select('site');
      for (const { site } of taken) await connectAs(site, YARD[site] ?? '');
      const snags: { id: string; snag: string }[] = await database()('drops')
        .where({ state: 'snag' })
        .select('id', 'snag');
      for (const { id, snag } of snags) {
        if (JSON.parse(snag).kind === 'permission') continue;
        await actOnDrop(id, { action: 'try again' });
      }
    } catch {
      // What stands in the way now is tried again in a moment.
    }
    await pause(LOOK_MILLISECONDS, undefined, { signal: ending }).catch(() => undefined);
  }
}

/** How many drops are live. */
export async function liveDrops(): Promise<number> {
  return (await lookAtStatus()).filter(({ state }) => state === 'live').length;
}

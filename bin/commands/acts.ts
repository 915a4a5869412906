import { DeskError } from '@/desk/desk-error';
import { goOnMany, lookAtManyActs, type ManyView, pauseMany, stopMany, undoMany } from '@/desk/many/ask-many';
import { actWords } from '@/ui/many/act-words';

const DOES: Record<string, (id: string) => Promise<unknown>> = {
  pause: pauseMany,
  go: goOnMany,
  stop: stopMany,
  undo: undoMany,
};

function says({ act, state, done, videos, changed, undone, kept, failedInAll }: ManyView): string {
  const words = actWords(act);
  const failed = failedInAll > 0 ? `, not done: ${failedInAll}` : '';
  if (state === 'undoing' || state === 'undone') return `${words.done}; ${state}: ${undone}, changed since: ${kept}`;
  if (state === 'done') return `${words.done}: ${changed}${failed}`;
  return `${words.doing}, ${state}: ${done} of ${videos}${failed}`;
}

/** Prints what was done with many videos last; or pauses one, lets it go on, stops it, or takes it back. */
export async function acts(
  what: string | undefined,
  id: string | undefined,
  options: { json?: boolean },
): Promise<void> {
  if (what !== undefined) {
    const does = Object.hasOwn(DOES, what) ? DOES[what] : undefined;
    if (!does || id === undefined)
      throw new DeskError('not taken', 'Say pause, go, stop or undo, and the id of the act.');
    await does(id);
    return;
  }
  const all = await lookAtManyActs();
  if (options.json) process.stdout.write(`${JSON.stringify(all, null, 2)}\n`);
  else if (all.length === 0) process.stdout.write('Nothing was done with many videos.\n');
  else for (const each of all) process.stdout.write(`${each.id}  ${says(each)}\n`);
}

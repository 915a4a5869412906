import type { StepContext } from './step';

/** Removes videos from the site that a drop has left behind there when it was sent anew. */
export async function removeLeftBehind({ drop, adapter, session, keep }: StepContext): Promise<void> {
  if (!drop.leftBehind || drop.leftBehind.length === 0) return;
  if (adapter.profile.abilities.removes) for (const id of drop.leftBehind) await adapter.remove(session, id);
  await keep({ leftBehind: undefined });
}

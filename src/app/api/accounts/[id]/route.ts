import { guarded } from '@/app/guard';
import { disconnect, lookAtHeldOf, removeAccount } from '@/desk/account/connect';

/** What is held on its channels. */
export const GET = guarded<{ id: string }>((_request, { id }) => lookAtHeldOf(id));

export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await disconnect(id);
  return undefined;
});

/** Takes an account that is disconnected from the pages. */
export const POST = guarded<{ id: string }>(async (_request, { id }) => {
  await removeAccount(id);
  return undefined;
});

import { guarded } from '@/app/guard';
import { disconnect, removeAccount } from '@/desk/account/connect';

export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await disconnect(id);
  return undefined;
});

/** Takes an account that is disconnected from the pages. */
export const POST = guarded<{ id: string }>(async (_request, { id }) => {
  await removeAccount(id);
  return undefined;
});

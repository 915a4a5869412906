import { guarded } from '@/app/guard';
import { renewWebhookSecret } from '@/desk/notices/set-notices';

export const POST = guarded(async () => {
  await renewWebhookSecret();
  return undefined;
});

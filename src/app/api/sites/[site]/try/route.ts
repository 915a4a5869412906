import { guarded } from '@/app/guard';
import { tryRestingSite } from '@/desk/site/resting-sites';

/** Has a site that rests tried at once. */
export const POST = guarded<{ site: string }>(async (_request, { site }) => {
  await tryRestingSite(site);
  return undefined;
});

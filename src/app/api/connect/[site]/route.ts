import { guarded } from '@/app/guard';
import { wayBack } from '@/app/way-back';
import { startConnecting } from '@/desk/connect';

export const dynamic = 'force-dynamic';

export const GET = guarded<{ site: string }>(async (request, { site }) =>
  Response.redirect(await startConnecting(site, wayBack(request, site)), 303),
);

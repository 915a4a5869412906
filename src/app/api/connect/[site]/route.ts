import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { wayBack } from '@/app/way-back';
import { startConnecting } from '@/desk/account/connect';

export const dynamic = 'force-dynamic';

/** Begins a sign-in; the page goes to the address that is answered. */
export const POST = guarded<{ site: string }>(async (request, { site }) => ({
  address: await startConnecting(site, wayBack(request, site), await jsonBody(request)),
}));

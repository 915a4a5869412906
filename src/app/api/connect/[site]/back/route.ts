import { guarded } from '@/app/guard';
import { wayBack } from '@/app/way-back';
import { finishConnecting } from '@/desk/account/connect';
import { DeskError } from '@/desk/desk-error';

export const dynamic = 'force-dynamic';

export const GET = guarded<{ site: string }>(async (request, { site }) => {
  const channels = new URL('/channels', wayBack(request, site));
  try {
    const back = new URL(new URL(request.url).search, wayBack(request, site));
    const { name, insteadOf } = await finishConnecting(site, back, wayBack(request, site));
    channels.searchParams.set('connected', name);
    if (insteadOf) channels.searchParams.set('insteadOf', insteadOf);
  } catch (error) {
    if (!(error instanceof DeskError)) throw error;
    channels.searchParams.set('trouble', error.message);
  }
  return Response.redirect(channels, 303);
});

import { guarded } from '@/app/guard';
import { tagOffers } from '@/desk/video/suggest-tags';

export const dynamic = 'force-dynamic';

type Params = { id: string };

export const GET = guarded<Params>((_request, { id }) => tagOffers(id));

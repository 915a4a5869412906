import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { newSeries } from '@/desk/defaults/series';
import { lookAtSeriesList } from '@/desk/views/look-at-layers';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtSeriesList());

export const POST = guarded(async (request) => ({ id: await newSeries(await jsonBody(request)) }));

import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { lookAtSeriesList } from '@/desk/look-at-layers';
import { newSeries } from '@/desk/series';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtSeriesList());

export const POST = guarded(async (request) => ({ id: await newSeries(await jsonBody(request)) }));

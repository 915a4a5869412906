import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { importSeries } from '@/desk/defaults/series';

export const POST = guarded(async (request) => ({ id: await importSeries(await jsonBody(request)) }));

import { guarded } from '@/app/guard';
import { importSeries } from '@/desk/series';

export const POST = guarded(async (request) => ({ id: await importSeries(await request.json()) }));

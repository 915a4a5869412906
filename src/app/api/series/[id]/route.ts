import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { duplicateSeries, editSeries, removeSeries } from '@/desk/defaults/series';

type Params = { id: string };

export const PATCH = guarded<Params>(async (request, { id }) => ({
  reached: await editSeries(id, await jsonBody(request)),
}));

/** Makes another with the same defaults. */
export const POST = guarded<Params>(async (_request, { id }) => ({ id: await duplicateSeries(id) }));

export const DELETE = guarded<Params>(async (_request, { id }) => ({ reached: await removeSeries(id) }));

import { create as contentDisposition } from 'content-disposition';
import { guarded } from '@/app/guard';
import { exportSeries } from '@/desk/defaults/series';

export const dynamic = 'force-dynamic';

type Params = { id: string };

/** A series as a JSON file. */
export const GET = guarded<Params>(async (_request, { id }) => {
  const { series, file } = await exportSeries(id);
  const name = `${series.name.replace(/[^\p{L}\p{N} ._-]/gu, '_')}.series.json`;
  return new Response(`${JSON.stringify(file, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': contentDisposition(name),
    },
  });
});

import { guarded } from '@/app/guard';
import { LARGEST_MARKER_FILE, MarkerFileError } from '@/core/markers';
import { editMarkers, exportMarkers, importMarkers, previewMarkers } from '@/desk/markers';

export const dynamic = 'force-dynamic';

type Params = { id: string };

const ENDINGS: Record<string, string> = { text: 'txt', matroska: 'xml', ffmetadata: 'ffmeta' };

export const GET = guarded<Params>(async (request, { id }) => {
  const { searchParams } = new URL(request.url);
  const format = searchParams.get('as') ?? '';
  const text = await exportMarkers(id, format, searchParams.get('only') === 'chapters');
  const name = `markers.${ENDINGS[format] ?? format}`;
  return new Response(text, {
    headers: { 'content-type': 'text/plain; charset=utf-8', 'content-disposition': `attachment; filename="${name}"` },
  });
});

export const POST = guarded<Params>(async (request, { id }) => {
  if (Number(request.headers.get('content-length')) > LARGEST_MARKER_FILE) {
    throw new MarkerFileError(`the file is larger than ${LARGEST_MARKER_FILE / 1024 / 1024} MiB`, 0);
  }
  const { searchParams } = new URL(request.url);
  const bytes = new Uint8Array(await request.arrayBuffer());
  if (searchParams.has('preview')) return previewMarkers(id, bytes);
  return importMarkers(id, bytes, searchParams.get('way') ?? undefined);
});

export const PATCH = guarded<Params>(async (request, { id }) => {
  await editMarkers(id, await request.json());
  return undefined;
});

import { create as contentDisposition } from 'content-disposition';
import { guarded } from '@/app/guard';
import { bodyBytes, jsonBody, jsonIn } from '@/app/json-body';
import { LARGEST_MARKER_FILE } from '@/core/markers';
import { editMarkers, exportMarkers, INSIDE_THE_CUT, importMarkers, previewMarkers } from '@/desk/video/markers';
import { lookAtMarkers } from '@/desk/views/look';

export const dynamic = 'force-dynamic';

type Params = { id: string };

const ENDINGS: Record<string, string> = { text: 'txt', matroska: 'xml', ffmetadata: 'ffmeta' };

/** The markers, or with `as` a file of them. */
export const GET = guarded<Params>(async (request, { id }) => {
  const { searchParams } = new URL(request.url);
  const format = searchParams.get('as');
  if (format === null) return lookAtMarkers(id);
  const text = await exportMarkers(id, format, searchParams.get('only') === 'chapters');
  const name = `markers.${ENDINGS[format] ?? format}`;
  return new Response(text, {
    headers: { 'content-type': 'text/plain; charset=utf-8', 'content-disposition': contentDisposition(name) },
  });
});

/** Takes the markers of a file, or with `inside` of the cut; with `preview` it only says what that would do. */
export const POST = guarded<Params>(async (request, { id }) => {
  const { searchParams } = new URL(request.url);
  const source = searchParams.has('inside') ? INSIDE_THE_CUT : await bodyBytes(request, LARGEST_MARKER_FILE);
  const columns = searchParams.get('columns');
  const options = {
    fileName: searchParams.get('name') ?? undefined,
    columns: columns === null ? undefined : jsonIn(columns, 'What the columns are'),
  };
  if (searchParams.has('preview')) return previewMarkers(id, source, options);
  return importMarkers(id, source, searchParams.get('way') ?? undefined, options);
});

export const PATCH = guarded<Params>(async (request, { id }) => {
  await editMarkers(id, await jsonBody(request));
  return undefined;
});

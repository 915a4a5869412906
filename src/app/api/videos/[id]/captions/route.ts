import { guarded } from '@/app/guard';
import { LARGEST_MARKER_FILE, MarkerFileError } from '@/core/markers';
import { bringCaptions, dropCaptions } from '@/desk/captions';

export const dynamic = 'force-dynamic';

type Params = { id: string };

/** Takes a caption file; `language` and `name` say what it is. */
export const POST = guarded<Params>(async (request, { id }) => {
  if (Number(request.headers.get('content-length')) > LARGEST_MARKER_FILE) {
    throw new MarkerFileError(`the file is larger than ${LARGEST_MARKER_FILE / 1024 / 1024} MiB`, 0);
  }
  const { searchParams } = new URL(request.url);
  const place = { language: searchParams.get('language') ?? '', fileName: searchParams.get('name') ?? undefined };
  await bringCaptions(id, new Uint8Array(await request.arrayBuffer()), place);
  return undefined;
});

export const DELETE = guarded<Params>(async (request, { id }) => {
  await dropCaptions(id, new URL(request.url).searchParams.get('captions') ?? '');
  return undefined;
});

import { guarded } from '@/app/guard';
import { bodyBytes } from '@/app/json-body';
import { LARGEST_MARKER_FILE } from '@/core/markers';
import { bringCaptions, dropCaptions } from '@/desk/video/captions';

export const dynamic = 'force-dynamic';

type Params = { id: string };

/** Takes a caption file; `language` and `name` say what it is. */
export const POST = guarded<Params>(async (request, { id }) => {
  const { searchParams } = new URL(request.url);
  const place = { language: searchParams.get('language') ?? '', fileName: searchParams.get('name') ?? undefined };
  await bringCaptions(id, await bodyBytes(request, LARGEST_MARKER_FILE), place);
  return undefined;
});

export const DELETE = guarded<Params>(async (request, { id }) => {
  await dropCaptions(id, new URL(request.url).searchParams.get('captions') ?? '');
  return undefined;
});

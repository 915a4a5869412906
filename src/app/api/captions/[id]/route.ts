import { guarded } from '@/app/guard';
import { openCaptions } from '@/desk/video/captions';

export const dynamic = 'force-dynamic';

/** Captions for the player; what an id stands for never changes. */
export const GET = guarded<{ id: string }>(async (_request, { id }) => {
  return new Response(await openCaptions(id), {
    headers: { 'content-type': 'text/vtt; charset=utf-8', 'cache-control': 'private, max-age=86400, immutable' },
  });
});

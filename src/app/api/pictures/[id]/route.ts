import { guarded } from '@/app/guard';
import { streamBody } from '@/app/stream-body';
import { openPicture } from '@/desk/video/pictures';

export const dynamic = 'force-dynamic';

export const GET = guarded<{ id: string }>(async (_request, { id }) => {
  const { picture, bytes } = await openPicture(id);
  const headers = {
    'content-type': picture.type,
    'content-length': String(picture.size),
    // A picture's bytes never change under its id.
    'cache-control': 'private, max-age=31536000, immutable',
  };
  return new Response(streamBody(bytes), { headers });
});

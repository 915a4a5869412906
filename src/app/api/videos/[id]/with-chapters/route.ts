import { create as contentDisposition } from 'content-disposition';
import { guarded } from '@/app/guard';
import { streamBody } from '@/app/stream-body';
import { cutWithChapters } from '@/desk/cut/chapters-inside';

export const dynamic = 'force-dynamic';

/** The cut with its chapters inside, to keep. */
export const GET = guarded<{ id: string }>(async (_request, { id }) => {
  const { fileName, size, open } = await cutWithChapters(id);
  const headers = {
    'content-type': 'application/octet-stream',
    'content-length': String(size),
    'content-disposition': contentDisposition(fileName),
  };
  return new Response(streamBody(open()), { headers });
});

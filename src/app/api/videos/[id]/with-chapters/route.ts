import { Readable } from 'node:stream';
import { guarded } from '@/app/guard';
import { cutWithChapters } from '@/desk/chapters-inside';

export const dynamic = 'force-dynamic';

/** The cut with its chapters inside, to keep. */
export const GET = guarded<{ id: string }>(async (_request, { id }) => {
  const { fileName, size, open } = await cutWithChapters(id);
  const headers = {
    'content-type': 'application/octet-stream',
    'content-length': String(size),
    // RFC 6266: the name as it is, in the extended form of RFC 8187.
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
  };
  return new Response(Readable.toWeb(open()) as ReadableStream, { headers });
});

import parseRange from 'range-parser';
import { guarded } from '@/app/guard';
import { streamBody } from '@/app/stream-body';
import { openCut } from '@/desk/cut/play-cut';

export const dynamic = 'force-dynamic';

const TYPES: Record<string, string> = {
  mp4: 'video/mp4',
  mov: 'video/mp4',
  webm: 'video/webm',
  mkv: 'video/x-matroska',
};

/** Plays a cut: a whole answer, or the one range that was asked for (RFC 9110, section 14). */
export const GET = guarded<{ id: string }>(async (request, { id }) => {
  const { size, container, open } = await openCut(id);
  const headers: Record<string, string> = {
    'content-type': TYPES[container] ?? 'application/octet-stream',
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=3600',
  };
  const asked = request.headers.get('range');
  const ranges = asked ? parseRange(size, asked) : -2;
  if (ranges === -1) return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  const range = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges[0] : undefined;
  const { start, end } = range ?? { start: 0, end: size - 1 };
  headers['content-length'] = String(end - start + 1);
  if (range) headers['content-range'] = `bytes ${start}-${end}/${size}`;
  const body = streamBody(open(start, end));
  return new Response(body, { status: range ? 206 : 200, headers });
});

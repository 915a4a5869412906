import { number, object } from 'yup';
import { guarded } from '@/app/guard';
import { fraction } from '@/core/time';
import { frameOfCut } from '@/desk/cut/play-cut';

export const dynamic = 'force-dynamic';

const whole = () => number().integer().max(Number.MAX_SAFE_INTEGER);
const momentShape = object({ num: whole().min(0).required(), den: whole().min(1).required() });

/** The frame at a moment, in exact seconds of the file: `?num=…&den=…`. */
export const GET = guarded<{ id: string }>(async (request, { id }) => {
  const asked = new URL(request.url).searchParams;
  const { num, den } = await momentShape.validate({ num: asked.get('num'), den: asked.get('den') });
  const picture = await frameOfCut(id, fraction(num, den));
  return new Response(new Uint8Array(picture), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=3600' },
  });
});

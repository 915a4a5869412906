import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { DeskError } from '@/desk/desk-error';
import { bringPicture, dropPicture, takeFrameAsPicture } from '@/desk/video/pictures';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  if (request.headers.get('content-type') === 'application/json') {
    await takeFrameAsPicture(id, await jsonBody(request));
    return undefined;
  }
  if (!request.body) throw new DeskError('not taken', 'The picture is empty. Use a JPEG, PNG or WebP file.');
  await bringPicture(id, Readable.fromWeb(request.body as ReadableStream));
  return undefined;
});

export const DELETE = guarded<Params>(async (_request, { id }) => {
  await dropPicture(id);
  return undefined;
});

import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { guarded } from '@/app/guard';
import { DeskError } from '@/desk/desk-error';
import { bringSound } from '@/desk/rights/bring-sound';

type Params = { id: string };

/** Takes a sound that is to be heard in the place of another; `name` is what its file is called. */
export const POST = guarded<Params>(async (request, { id }) => {
  if (!request.body) throw new DeskError('not taken', 'The sound is empty. Use a WAV, FLAC, MP3 or AAC file.');
  const name = new URL(request.url).searchParams.get('name') ?? 'sound';
  return bringSound(id, name, Readable.fromWeb(request.body as ReadableStream));
});

import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { askToDelete, keepVideo } from '@/desk/video/delete-video';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';

export const dynamic = 'force-dynamic';

type Params = { id: string };

export const GET = guarded<Params>((_request, { id }) => lookAtSheet(id));

export const PATCH = guarded<Params>(async (request, { id }) => {
  await editVideo(id, await jsonBody(request));
  return undefined;
});

export const DELETE = guarded<Params>(async (_request, { id }) => {
  return { gone: await askToDelete(id) };
});

/** Keeps a video that was to be deleted. */
export const PUT = guarded<Params>(async (_request, { id }) => {
  await keepVideo(id);
  return undefined;
});

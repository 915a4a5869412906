import { guarded } from '@/app/guard';
import { LARGEST_MARKER_FILE, MarkerFileError } from '@/core/markers';
import { importMarkers } from '@/desk/markers';

export const POST = guarded<{ id: string }>(async (request, { id }) => {
  if (Number(request.headers.get('content-length')) > LARGEST_MARKER_FILE) {
    throw new MarkerFileError(`the file is larger than ${LARGEST_MARKER_FILE / 1024 / 1024} MiB`, 0);
  }
  return importMarkers(id, new Uint8Array(await request.arrayBuffer()));
});

import { guarded } from '@/app/guard';
import { announceCut } from '@/desk/bring-cut';

export const POST = guarded(async (request) => {
  const { cut, goesOn } = await announceCut(await request.json());
  return { videoId: cut.videoId, cutId: cut.id, goesOn };
});

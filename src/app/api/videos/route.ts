import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { announceCuts } from '@/desk/cut/bring-cut';

/** Takes files in that are about to come, all with one answer each. */
export const POST = guarded(async (request) => {
  const announced = await announceCuts(await jsonBody(request));
  return {
    files: announced.map((each) => {
      if (!('cut' in each)) return each;
      const { id: cutId, videoId, received } = each.cut;
      return { cutId, videoId, goesOn: each.goesOn, received };
    }),
  };
});

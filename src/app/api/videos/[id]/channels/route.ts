import { boolean, object, string } from 'yup';
import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { editOnChannel, tickChannel } from '@/desk/video/edit-video';

type Params = { id: string };

const shape = object({ channelId: string().required(), ticked: boolean().required() });

export const POST = guarded<Params>(async (request, { id }) => {
  const { channelId, ticked } = await shape.validate(await jsonBody(request));
  await tickChannel(id, channelId, ticked);
  return undefined;
});

/** Sets words or privacy for one channel alone. */
export const PATCH = guarded<Params>(async (request, { id }) => {
  await editOnChannel(id, await jsonBody(request));
  return undefined;
});

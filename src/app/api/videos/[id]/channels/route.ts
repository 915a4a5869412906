import { boolean, object, string } from 'yup';
import { guarded } from '@/app/guard';
import { tickChannel } from '@/desk/edit-video';

const shape = object({ channelId: string().required(), ticked: boolean().required() });

export const POST = guarded<{ id: string }>(async (request, { id }) => {
  const { channelId, ticked } = await shape.validate(await request.json());
  await tickChannel(id, channelId, ticked);
  return undefined;
});

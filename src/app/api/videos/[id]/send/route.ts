import { guarded } from '@/app/guard';
import { sendVideo } from '@/desk/send';

export const POST = guarded<{ id: string }>((_request, { id }) => sendVideo(id));

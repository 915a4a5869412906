import { guarded } from '@/app/guard';
import { reviseVideo, sendVideo } from '@/desk/drop/send';

type Params = { id: string };

/** Sends the video to every ticked channel that it is ready for. */
export const POST = guarded<Params>((_request, { id }) => sendVideo(id));

/** Sends what has changed to every channel at which it stands. */
export const PATCH = guarded<Params>((_request, { id }) => reviseVideo(id));

import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { makePlaylist, refreshPlaylists } from '@/desk/site/playlists';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => makePlaylist(id, await jsonBody(request)));

export const PUT = guarded<Params>((_request, { id }) => refreshPlaylists(id));

import { guarded } from '@/app/guard';
import { makePlaylist, refreshPlaylists } from '@/desk/playlists';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => makePlaylist(id, await request.json()));

export const PUT = guarded<Params>((_request, { id }) => refreshPlaylists(id));

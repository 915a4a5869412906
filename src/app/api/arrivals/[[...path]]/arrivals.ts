import { EVENTS, Server } from '@tus/server';
import { arrivingCut, noteCutArrived, noteCutProgress } from '@/desk/bring-cut';
import { DeskError } from '@/desk/desk-error';
import { ArrivingStore } from '@/store/files/arriving';

const TELL_EVERY_MILLISECONDS = 1000;

let server: Server | undefined;

/** The tus server that cuts come in by. A transfer has the id of its cut, which was announced before it. */
export function arrivals(): Server {
  if (server) return server;
  server = new Server({
    path: '/api/arrivals',
    datastore: new ArrivingStore(),
    relativeLocation: true,
    postReceiveInterval: TELL_EVERY_MILLISECONDS,
    namingFunction: async (_request, metadata) => {
      try {
        return (await arrivingCut(metadata?.cutId ?? '')).id;
      } catch (error) {
        throw tusError(error);
      }
    },
    onUploadCreate: async (_request, upload) => {
      const cut = await arrivingCut(upload.id);
      if (upload.size !== cut.size) throw { status_code: 422, body: 'The size is not the one that was announced' };
      return {};
    },
    onUploadFinish: async (_request, upload) => {
      await noteCutArrived(upload.id, upload.size ?? 0);
      return {};
    },
  });
  server.on(EVENTS.POST_RECEIVE, (_request, upload) => {
    void noteCutProgress(upload.id, upload.offset);
  });
  return server;
}

function tusError(error: unknown): unknown {
  if (!(error instanceof DeskError)) return error;
  return { status_code: error.kind === 'not found' ? 404 : 409, body: error.message };
}

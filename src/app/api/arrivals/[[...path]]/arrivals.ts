import { EVENTS, Server } from '@tus/server';
import { arrivingCut, cutsComeInto, noteCutArrived, noteCutProgress } from '@/desk/cut/bring-cut';
import { DeskError } from '@/desk/desk-error';

const TELL_EVERY_MILLISECONDS = 1000;

let server: Server | undefined;

/** The tus server that cuts come in by. A transfer has the id of its cut, which was announced before it. */
function arrivals(): Server {
  if (server) return server;
  const store = cutsComeInto();
  server = new Server({
    path: '/api/arrivals',
    datastore: store,
    relativeLocation: true,
    postReceiveInterval: TELL_EVERY_MILLISECONDS,
    namingFunction: async (_request, metadata) => {
      try {
        return (await arrivingCut(metadata?.cutId ?? '')).id;
      } catch (error) {
        throw tusError(error);
      }
    },
    onIncomingRequest: async (request, uploadId) => {
      // A cut that has arrived is in use: no transfer writes to it or takes it away any more. How much came may be asked.
      if (!['PATCH', 'DELETE'].includes(request.method)) return;
      await arrivingCut(uploadId).catch((error: unknown) => {
        throw tusError(error);
      });
    },
    onUploadCreate: async (_request, upload) => {
      const cut = await arrivingCut(upload.id);
      if (upload.size !== cut.size) throw { status_code: 422, body: 'The size is not the one that was announced' };
      return {};
    },
    onUploadFinish: async (_request, upload) => {
      const size = upload.size ?? 0;
      await noteCutArrived(upload.id, size, await store.digestOf(upload.id, size));
      return {};
    },
  });
  server.on(EVENTS.POST_RECEIVE, (_request, upload) => {
    void noteCutProgress(upload.id, upload.offset);
  });
  return server;
}

/** Answers a request of the tus protocol. */
export async function answerArrival(request: Request): Promise<Response> {
  const headers = { 'tus-resumable': '1.0.0', 'tus-version': '1.0.0' };
  if (request.method !== 'OPTIONS' && request.headers.get('tus-resumable') !== '1.0.0') {
    // "If the version specified by the Client is not supported by the Server, it MUST respond with the 412 Precondition
    // Failed status and MUST include the Tus-Version header into the response."
    return new Response('Only tus 1.0.0 is spoken here', { status: 412, headers });
  }
  if (request.method === 'PATCH' && request.headers.get('content-type') !== 'application/offset+octet-stream') {
    // "All PATCH requests MUST use Content-Type: application/offset+octet-stream, otherwise the server SHOULD return a
    // 415 Unsupported Media Type status."
    return new Response('A part has the type application/offset+octet-stream', { status: 415, headers });
  }
  return arrivals().handleWeb(request);
}

function tusError(error: unknown): unknown {
  if (!(error instanceof DeskError)) return error;
  return { status_code: error.kind === 'not found' ? 404 : 409, body: error.message };
}

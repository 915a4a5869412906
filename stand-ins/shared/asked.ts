import type { FastifyInstance } from 'fastify';

/** A request that a stand-in was asked, as tests look at it. */
interface Asked {
  at: string;
  method: string;
  path: string;
  status: number;
  /** Names of what a JSON body has. */
  fields: string[];
}

const MOST_KEPT = 5000;

/** Keeps what was asked of a stand-in, but its control interface, for tests to look at. No header and no value is kept. */
export function listAsked(server: FastifyInstance): void {
  let asked: Asked[] = [];
  server.addHook('onResponse', async (request, reply) => {
    const path = request.url.split('?')[0] ?? '';
    if (path.startsWith('/control/')) return;
    const { body, method } = request;
    const fields = request.headers['content-type']?.startsWith('application/json') ? Object.keys(body ?? {}) : [];
    asked.push({ at: new Date().toISOString(), method, path, status: reply.statusCode, fields });
    if (asked.length > MOST_KEPT) asked = asked.slice(-MOST_KEPT / 2);
  });
  server.get('/control/asked', async () => asked);
  server.delete('/control/asked', async () => {
    asked = [];
    return asked;
  });
}

import type { FastifyInstance } from 'fastify';

/** A request that a stand-in was asked, as tests look at it. */
interface Asked {
  at: string;
  method: string;
  path: string;
  status: number;
}

const MOST_KEPT = 5000;

/** Keeps what was asked of a stand-in, but its control interface, for tests to look at. Nothing of headers or bodies is kept. */
export function listAsked(server: FastifyInstance): void {
  let asked: Asked[] = [];
  server.addHook('onResponse', async (request, reply) => {
    const path = request.url.split('?')[0] ?? '';
    if (path.startsWith('/control/')) return;
    asked.push({ at: new Date().toISOString(), method: request.method, path, status: reply.statusCode });
    if (asked.length > MOST_KEPT) asked = asked.slice(-MOST_KEPT / 2);
  });
  server.get('/control/asked', async () => asked);
  server.delete('/control/asked', async () => {
    asked = [];
    return asked;
  });
}

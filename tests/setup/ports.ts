import net from 'node:net';

/** Ports that nobody else of these tests takes until they are let go. */
export interface HeldPorts {
  first: number;
  release(): void;
}

function listen(port: number): Promise<net.Server | undefined> {
  return new Promise((resolve) => {
    const server = net.createServer();
    server.on('error', () => resolve(undefined));
    server.listen(port, '127.0.0.1', () => resolve(server));
  });
}

/** Blocks begin at every so many ports. */
const BLOCK = 16;
/**
 * They lie below the range from which the system takes the ports of outgoing connections (RFC 6335 §6 and Linux' own): one
 * of those could sit on a port while its server is restarted.
 */
const [LOWEST, BLOCKS] = [10_000, 1180];

/**
 * A run of `count` ports, at most 15, held from the moment they are drawn: the port before them is listened on until they are
 * let go, so that no other test draws the same block, though nothing listens in it yet.
 */
export async function heldPorts(count: number): Promise<HeldPorts> {
  for (;;) {
    const guarded = LOWEST + BLOCK * Math.floor(Math.random() * BLOCKS);
    const guard = await listen(guarded);
    if (!guard) continue;
    guard.unref();
    const inside = await Promise.all(Array.from({ length: count }, (_, offset) => listen(guarded + 1 + offset)));
    await Promise.all(inside.map((server) => server && new Promise((resolve) => server.close(resolve))));
    if (inside.every(Boolean)) return { first: guarded + 1, release: () => guard.close() };
    guard.close();
  }
}

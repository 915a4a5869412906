import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { Transform } from 'node:stream';

/** A line between a browser and Kettle Drop: slow, and with a server's limit on how long one request may take. */
export interface SlowLine {
  /** Where the browser goes instead. */
  address: string;
  /** How many requests took longer than they may, and were cut off with 408 (RFC 9110, section 15.5.9). */
  cutOff(): number;
  /** Breaks the line: what is under way ends, and nothing new gets through until it is mended. */
  break(): void;
  mend(): void;
  end(): Promise<void>;
}

/**
 * @param to the port of Kettle Drop on this machine
 * @param bytesPerSecond of what the browser sends
 * @param requestMilliseconds how long one request may take to come in
 */
export async function slowLine(to: number, bytesPerSecond: number, requestMilliseconds: number): Promise<SlowLine> {
  let cutOff = 0;
  let isBroken = false;
  const server = http.createServer(
    { requestTimeout: requestMilliseconds, connectionsCheckingInterval: 100 },
    (incoming, answer) => {
      const outgoing = http.request(
        { host: '127.0.0.1', port: to, path: incoming.url, method: incoming.method, headers: incoming.headers },
        (answered) => {
          answer.writeHead(answered.statusCode ?? 502, answered.headers);
          answered.pipe(answer);
        },
      );
      outgoing.on('error', () => answer.destroy());
      incoming.on('aborted', () => outgoing.destroy());
      answer.on('close', () => outgoing.destroy());
      incoming.pipe(slowed(bytesPerSecond)).pipe(outgoing);
    },
  );
  server.on('connection', (socket) => {
    if (isBroken) socket.destroy();
  });
  server.on('clientError', (error: NodeJS.ErrnoException, socket) => {
    if (error.code !== 'ERR_HTTP_REQUEST_TIMEOUT') return socket.destroy();
    cutOff += 1;
    socket.end('HTTP/1.1 408 Request Timeout\r\nConnection: close\r\nContent-Length: 0\r\n\r\n');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    cutOff: () => cutOff,
    break() {
      isBroken = true;
      server.closeAllConnections();
    },
    mend() {
      isBroken = false;
    },
    end: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

function slowed(bytesPerSecond: number): Transform {
  const started = Date.now();
  let passed = 0;
  return new Transform({
    highWaterMark: 64 * 1024,
    transform(chunk: Buffer, _, done) {
      passed += chunk.length;
      const wait = started + (passed / bytesPerSecond) * 1000 - Date.now();
      setTimeout(() => done(null, chunk), Math.max(0, wait));
    },
  });
}

import { createWriteStream } from 'node:fs';
import http from 'node:http';
import { pipeline } from 'node:stream/promises';

// The baseline: a bare Node.js server that pipes what comes to disk, in a process of its own.
const [, , file] = process.argv;
const server = http.createServer(async (request, answer) => {
  await pipeline(request, createWriteStream(file));
  answer.writeHead(204).end();
});
server.listen(0, '127.0.0.1', () => process.send?.(server.address().port));

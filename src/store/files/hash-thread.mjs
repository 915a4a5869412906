import { createHash } from 'node:crypto';
import { parentPort } from 'node:worker_threads';

/** Digests of several streams side by side, each by its number. What was taken in is told, so that no backlog goes unseen. */
const hashes = new Map();

parentPort?.on('message', ({ id, chunk, ends }) => {
  if (chunk) {
    if (!hashes.has(id)) hashes.set(id, createHash('sha256'));
    hashes.get(id).update(chunk);
    parentPort.postMessage({ id, taken: chunk.length });
    return;
  }
  const digest = ends ? (hashes.get(id) ?? createHash('sha256')).digest('hex') : undefined;
  hashes.delete(id);
  parentPort.postMessage({ id, digest });
});

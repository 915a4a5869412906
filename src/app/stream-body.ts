import type { Readable } from 'node:stream';

/**
 * A file's bytes as the body of an answer, read as its reader takes them. A reader that goes away closes the file;
 * `Readable.toWeb` would then close its stream a second time, which throws where nobody can catch it.
 */
export function streamBody(bytes: Readable): ReadableStream<Uint8Array> {
  const chunks: AsyncIterator<Uint8Array> = bytes[Symbol.asyncIterator]();
  // A file that cannot be opened says so to whoever reads first; nobody may do that for long.
  bytes.on('error', () => undefined);
  return new ReadableStream(
    {
      async pull(controller) {
        const { value, done } = await chunks.next();
        if (done) controller.close();
        else controller.enqueue(value);
      },
      cancel() {
        bytes.destroy();
      },
    },
    { highWaterMark: 0 },
  );
}

import { Transform, type TransformCallback } from 'node:stream';
import { setTimeout as pause } from 'node:timers/promises';

/** Bytes go on in pieces of about this long at the rate that holds, so that a changed limit is felt at once. */
const PIECE_SECONDS = 0.1;
const LEAST_PIECE_BYTES = 4096;
/** More than the pieces in which files are read, so that reading and sending go on side by side. */
const BUFFER_BYTES = 1024 * 1024;

/**
 * Passes bytes on no faster than a rate that may change at any moment.
 * @param bytesPerSecond the rate now; undefined lets everything through
 * @param wait milliseconds, replaced in tests
 */
export function throttle(
  bytesPerSecond: () => number | undefined,
  wait: (milliseconds: number) => Promise<unknown> = pause,
): Transform {
  return new Transform({
    highWaterMark: BUFFER_BYTES,
    transform(chunk: Buffer, _encoding, done: TransformCallback) {
      let rate = bytesPerSecond();
      if (rate === undefined) {
        done(null, chunk);
        return;
      }
      const pass = async () => {
        for (let at = 0; at < chunk.length; rate = bytesPerSecond()) {
          if (rate === undefined) {
            this.push(chunk.subarray(at));
            return;
          }
          const piece = chunk.subarray(at, at + Math.max(LEAST_PIECE_BYTES, Math.floor(rate * PIECE_SECONDS)));
          at += piece.length;
          this.push(piece);
          await wait((piece.length / rate) * 1000);
        }
      };
      pass().then(() => done(), done);
    },
  });
}

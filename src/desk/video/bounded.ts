import { Readable } from 'node:stream';
import { DeskError } from '../desk-error';

async function* chunksBelow(bytes: Readable, most: number, what: string): AsyncGenerator<Buffer> {
  let passed = 0;
  for await (const chunk of bytes) {
    passed += (chunk as Buffer).length;
    if (passed > most)
      throw new DeskError('not taken', `The ${what} is larger than ${most / 1e6} MB. Use a smaller one.`);
    yield chunk as Buffer;
  }
}

/** Bytes that end with an error where there are too many. @param what they are, as the error calls it */
export function bounded(bytes: Readable, most: number, what: string): Readable {
  return Readable.from(chunksBelow(bytes, most, what));
}

import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { type ByteRange, proofRanges, sampleRanges } from '@/core/delivery';

async function digestOf(file: string, { start, end }: ByteRange): Promise<Buffer> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file, { start, end: end - 1 })) hash.update(chunk as Buffer);
  return hash.digest();
}

/** The digest of digests over parts of a file: in hexadecimal, as the browser makes it, too. */
async function digestOfParts(file: string, first: string, ranges: readonly ByteRange[]): Promise<string> {
  const whole = createHash('sha256').update(first);
  for (const range of ranges) whole.update(await digestOf(file, range));
  return whole.digest('hex');
}

/** What a file on this machine is known by again. @param size in bytes */
export const fingerprintOfFile = (file: string, size: number): Promise<string> =>
  digestOfParts(file, String(size), sampleRanges(size));

/** A proof of the first bytes of a file on this machine. @param upTo how many */
export const proofOfStart = (file: string, upTo: number): Promise<string> =>
  digestOfParts(file, String(upTo), proofRanges(upTo));

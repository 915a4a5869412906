import { type ByteRange, proofRanges, sampleRanges } from '@/core/delivery';

const hex = (digest: ArrayBuffer) =>
  [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('');

/** The digest of digests over parts of a file, as the server makes it, too. A part at a time is in memory. */
async function digestOfParts(file: File, first: string, ranges: readonly ByteRange[]): Promise<string> {
  const digests: (Uint8Array<ArrayBuffer> | ArrayBuffer)[] = [new TextEncoder().encode(first)];
  for (const { start, end } of ranges) {
    digests.push(await crypto.subtle.digest('SHA-256', await file.slice(start, end).arrayBuffer()));
  }
  return hex(await crypto.subtle.digest('SHA-256', await new Blob(digests).arrayBuffer()));
}

/** Knows a file again without reading all of it. */
export const fingerprintOf = (file: File): Promise<string> =>
  digestOfParts(file, String(file.size), sampleRanges(file.size));

/** A proof of the first bytes of a file. @param upTo how many */
export const proofOfStart = (file: File, upTo: number): Promise<string> =>
  digestOfParts(file, String(upTo), proofRanges(upTo));

/** A run of bytes of a file: from `start` up to but not including `end`. */
export interface ByteRange {
  start: number;
  end: number;
}

const SAMPLE_BYTES = 64 * 1024;
const SAMPLES = 96;

/**
 * The parts of a file that it is known by again without reading all of it: its start, its end, and even steps between, so
 * that two exports that differ somewhere in the middle are hardly ever taken for one. A small file is sampled whole.
 * @param size in bytes
 */
export function sampleRanges(size: number): ByteRange[] {
  if (size <= SAMPLE_BYTES * SAMPLES) return size === 0 ? [] : [{ start: 0, end: size }];
  return Array.from({ length: SAMPLES }, (_, index) => {
    const start = Math.floor((index * (size - SAMPLE_BYTES)) / (SAMPLES - 1));
    return { start, end: start + SAMPLE_BYTES };
  });
}

const PROOF_BYTES = 8 * 1024 * 1024;

/**
 * The parts of which a proof is made that two files begin with the same bytes: the SHA-256 of each part, and of all these
 * digests one after the other.
 * @param upTo how many bytes are to be the same
 */
export function proofRanges(upTo: number): ByteRange[] {
  return Array.from({ length: Math.ceil(upTo / PROOF_BYTES) }, (_, index) => {
    const start = index * PROOF_BYTES;
    return { start, end: Math.min(upTo, start + PROOF_BYTES) };
  });
}

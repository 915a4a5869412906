const MIB = 1024 * 1024;

/** How much of a file the first request brings, before the line is known. */
export const FIRST_CHUNK_BYTES = 8 * MIB;
const MOST_BYTES = 64 * MIB;
/** On a line that breaks, or is cut for being slow, ever less is lost with each request. */
const LEAST_BYTES = MIB;
/** Long enough that the pause between two requests is nothing beside it, short enough that little is lost with one. */
const SECONDS_PER_CHUNK = 10;

const wholeMib = (bytes: number) => Math.max(1, Math.round(bytes / MIB)) * MIB;

/**
 * How much the next request brings, after one that went well: what the line takes in some seconds, from 8 to 64 MiB. A
 * server gives each request some minutes, so that a slow line needs smaller ones.
 * @param bytes what went over, in `seconds`
 */
export function chunkAfterSuccess(bytes: number, seconds: number): number {
  const taken = (bytes / Math.max(0.001, seconds)) * SECONDS_PER_CHUNK;
  // Below the usual least only as far as the line itself is slower than that.
  const least = Math.max(LEAST_BYTES, Math.min(FIRST_CHUNK_BYTES, taken * 3));
  return wholeMib(Math.min(MOST_BYTES, Math.max(least, taken)));
}

/** How much the next request brings, after one that broke: half of it. */
export function chunkAfterBreak(bytes: number): number {
  return wholeMib(Math.max(LEAST_BYTES, bytes / 2));
}

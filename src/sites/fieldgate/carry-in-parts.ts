import { createHash } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import { array, boolean, number, object, string } from 'yup';
import { type CarriedFile, type Session, SiteError } from '../contract';
import { askSite } from '../json-api';

const partsShape = object({
  whole: boolean().required(),
  partBytes: number().integer().min(1).required(),
  parts: array(
    object({
      number: number().integer().required(),
      bytes: number().integer().required(),
      digest: string().required(),
    }),
  ).required(),
});

/** The field of a digest (RFC 9530, section 2): the algorithm with the digest in base64 between colons. */
export function contentDigest(bytes: Uint8Array): string {
  return `sha-256=:${createHash('sha256').update(bytes).digest('base64')}:`;
}

/**
 * Carries a file in numbered parts, each with its Content-Digest (RFC 9530), and completes it. Parts that the site has
 * already with the right bytes are not sent again; two parts at a time are in memory.
 * @throws SiteError; where `signal` aborts, its reason
 */
export async function carryInParts(
  session: Session,
  work: string,
  file: CarriedFile,
  onProgress: (bytes: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const { whole, partBytes, parts } = await partsShape.validate(await askSite(session, `${work}/parts`));
  if (whole) {
    onProgress(file.size);
    return;
  }
  const there = new Map(parts.map((part) => [part.number, part]));
  const count = Math.ceil(file.size / partBytes);
  const lengthOf = (part: number) => Math.min(partBytes, file.size - (part - 1) * partBytes);
  let over = 0;
  for (let part = 1; part <= count; part += 1) if (there.get(part)?.bytes === lengthOf(part)) over += lengthOf(part);
  onProgress(over);
  const missing = Array.from({ length: count }, (_, index) => index + 1).filter(
    (part) => there.get(part)?.bytes !== lengthOf(part),
  );
  const digests = new Map(parts.map(({ number, digest }) => [number, digest]));
  const prepare = async (part: number | undefined) => {
    if (part === undefined) return undefined;
    const first = (part - 1) * partBytes;
    const bytes = await buffer(file.open(first, first + lengthOf(part) - 1));
    return { part, bytes, digest: contentDigest(bytes) };
  };
  // The next part is read and digested while the one before it is on the line.
  let next = prepare(missing.shift());
  for (let ready = await next; ready; ready = await next) {
    next = prepare(missing.shift());
    next.catch(() => undefined);
    const { part, bytes, digest } = ready;
    signal.throwIfAborted();
    await askSite(session, `${work}/parts/${part}`, {
      ...{ method: 'PUT', bytes, type: 'application/octet-stream', signal },
      headers: { 'content-digest': digest },
    }).catch((error) => {
      signal.throwIfAborted();
      throw error;
    });
    digests.set(part, digest.slice('sha-256=:'.length, -1));
    over += bytes.length;
    onProgress(over);
  }
  const list = Array.from({ length: count }, (_, index) => {
    return { number: index + 1, digest: digests.get(index + 1) ?? '' };
  });
  await askSite(session, `${work}/complete`, { method: 'POST', json: { parts: list } }).catch((error) => {
    // A part that was there and is gone, or differs: the next try lists the parts anew.
    if (error instanceof SiteError && error.kind === 'refused') throw new SiteError('unreachable', error.message);
    throw error;
  });
}

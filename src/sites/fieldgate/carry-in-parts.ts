import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { array, boolean, number, object, string } from 'yup';
import { type CarriedFile, type Session, SiteError } from '../contract';
import { askSite, errorForStatus, problemText, readJson } from '../json-api';
import { streamToSite } from '../stream-request';

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

/**
 * The field of a digest (RFC 9530, section 2): the algorithm with the digest in base64 between colons. The bytes pass through
 * and are not held.
 */
export async function contentDigest(bytes: Readable, signal?: AbortSignal): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(bytes, hash, { signal });
  return `sha-256=:${hash.digest('base64')}:`;
}

/**
 * Carries a file in numbered parts, each with its Content-Digest (RFC 9530), and completes it. Parts that the site has
 * already with the right bytes are not sent again. However large the site wants its parts, no more than a few buffers are in
 * memory: each part is read once for its digest and once for the line.
 * @param work the address of the work at the site
 * @param onProgress hears how many bytes are over
 * @throws SiteError; the file's own error where it cannot be read; where `signal` aborts, its reason
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
  const partsAtSite = new Map(parts.map((part) => [part.number, part]));
  const count = Math.ceil(file.size / partBytes);
  const bytesOf = (part: number) => {
    const first = (part - 1) * partBytes;
    const length = Math.min(partBytes, file.size - first);
    return { length, open: () => file.open(first, first + length - 1) };
  };
  const list: { number: number; digest: string }[] = [];
  let over = 0;
  for (let part = 1; part <= count; part += 1) {
    const { length, open } = bytesOf(part);
    const digest = await contentDigest(open(), signal);
    const partAtSite = partsAtSite.get(part);
    if (partAtSite?.bytes !== length || `sha-256=:${partAtSite.digest}:` !== digest) {
      await sendPart(
        session,
        `${work}/parts/${part}`,
        { length, body: open, digest },
        (bytes) => onProgress(over + bytes),
        signal,
      );
    }
    list.push({ number: part, digest: digest.slice('sha-256=:'.length, -1) });
    over += length;
    onProgress(over);
  }
  await askSite(session, `${work}/complete`, { method: 'POST', json: { parts: list } }).catch((error) => {
    // A part that was there and is gone, or differs: the next try lists the parts anew.
    if (error instanceof SiteError && error.kind === 'refused') throw new SiteError('unreachable', error.message);
    throw error;
  });
}

async function sendPart(
  session: Session,
  address: string,
  part: { length: number; body: () => Readable; digest: string },
  onProgress: (bytes: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const send = (token: string) =>
    streamToSite({
      session,
      method: 'PUT',
      address,
      length: part.length,
      body: part.body(),
      onProgress,
      signal,
      headers: {
        authorization: `Bearer ${token}`,
        'content-type': 'application/octet-stream',
        'content-digest': part.digest,
      },
    });
  const token = await session.accessToken();
  let answer = await send(token);
  if (answer.status === 401) answer = await send(await session.accessToken(token));
  if (answer.status >= 300) {
    const says = problemText(readJson(answer.body)) ?? `The site answers ${answer.status} to a part`;
    throw errorForStatus(answer.status, says, answer.headers['retry-after']);
  }
}

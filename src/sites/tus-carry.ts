import { type CarriedFile, type Session, SiteError } from './contract';
import { errorForStatus, headOf } from './json-api';
import { streamToSite } from './stream-request';

const TUS = { 'tus-resumable': '1.0.0' };

/**
 * Carries a file to a tus 1.0 upload that the site has made, from the byte that the site confirms. The worker's file
 * store gives streams and no paths, which tus-js-client would have to hold in memory chunk by chunk; so the two requests
 * of the protocol stand here.
 * @param uploadUrl the address that the site gave for this upload
 * @param onProgress hears how many bytes are over
 * @throws SiteError; where `signal` aborts, its reason
 */
export async function carryByTus(
  session: Session,
  uploadUrl: string,
  file: CarriedFile,
  onProgress: (bytes: number) => void,
  signal: AbortSignal,
): Promise<void> {
  let token = await session.accessToken();
  let offset = await confirmedOffset();
  onProgress(offset);
  if (offset < file.size) offset = await send(offset);
  if (offset !== file.size) {
    throw new SiteError('unreachable', `The site has ${offset} of ${file.size} bytes; the transfer goes on from there`);
  }

  /** Core protocol, HEAD: the response has to carry Upload-Offset, even where it is 0. */
  async function confirmedOffset(renewed = false): Promise<number> {
    const headers = { ...TUS, authorization: `Bearer ${token}` };
    const asked = { method: 'HEAD', address: uploadUrl, since: performance.now() };
    const answer = await fetch(uploadUrl, { method: 'HEAD', headers, signal }).catch(async (error: Error) => {
      await session.heard(undefined, asked);
      signal.throwIfAborted();
      throw new SiteError('unreachable', `The site does not answer (${error.message})`);
    });
    await session.heard(headOf(answer), asked);
    if (answer.status === 401 && !renewed) {
      token = await session.accessToken(token);
      return confirmedOffset(true);
    }
    const at = Number(answer.headers.get('upload-offset') ?? Number.NaN);
    if (!answer.ok || !Number.isSafeInteger(at)) {
      throw errorForStatus(
        answer.status,
        'The site does not say how much it has',
        answer.headers.get('retry-after') ?? undefined,
      );
    }
    return at;
  }

  /** Core protocol, PATCH: the server acknowledges with 204 and the new Upload-Offset. */
  async function send(from: number): Promise<number> {
    token = await session.accessToken();
    const answer = await streamToSite({
      session,
      method: 'PATCH',
      address: uploadUrl,
      headers: {
        ...TUS,
        authorization: `Bearer ${token}`,
        'content-type': 'application/offset+octet-stream',
        'upload-offset': String(from),
      },
      length: file.size - from,
      body: file.open(from),
      onProgress: (bytes) => onProgress(from + bytes),
      signal,
    });
    if (answer.status !== 204) {
      throw errorForStatus(
        answer.status,
        `The site answers ${answer.status} to the file`,
        answer.headers['retry-after'],
      );
    }
    return Number(answer.headers['upload-offset']);
  }
}

import { type CarriedFile, type Session, SiteError } from '../contract';
import { type Explain, errorForStatus, readJson } from '../json-api';
import { streamToSite } from '../stream-request';

/**
 * Carries a file by PUT with Content-Range (RFC 9110, section 14.5), from the byte that the site confirms.
 * @param confirmed how many bytes the site has
 * @throws SiteError; where `signal` aborts, its reason
 */
export async function carryByRange(
  session: Session,
  address: string,
  file: CarriedFile,
  confirmed: () => Promise<number>,
  onProgress: (bytes: number) => void,
  signal: AbortSignal,
  explain: Explain,
): Promise<void> {
  const from = await confirmed();
  onProgress(from);
  if (from >= file.size) return;
  const answer = await streamToSite({
    session,
    method: 'PUT',
    address,
    headers: {
      authorization: `Bearer ${await session.accessToken()}`,
      'content-type': 'application/octet-stream',
      'content-range': `bytes ${from}-${file.size - 1}/${file.size}`,
    },
    length: file.size - from,
    body: file.open(from),
    onProgress: (bytes) => onProgress(from + bytes),
    signal,
  });
  if (answer.status >= 300) {
    throw errorForStatus(
      answer.status,
      explain(readJson(answer.body)) ?? `The site answers ${answer.status}`,
      answer.headers['retry-after'],
    );
  }
  const over = await confirmed();
  if (over !== file.size) {
    throw new SiteError('unreachable', `The site has ${over} of ${file.size} bytes; the transfer goes on from there`);
  }
  onProgress(over);
}

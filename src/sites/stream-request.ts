import http from 'node:http';
import https from 'node:https';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Session, SiteError } from './contract';

/**
 * After so long without a byte taken or an answer begun, the line counts as broken. Buffers of the system take bytes in
 * steps of up to a megabyte, so a slow line may look still for half a minute.
 */
const STALLED_AFTER_MILLISECONDS = 60_000;

/** What a site answered to a body that was streamed to it. */
export interface StreamAnswer {
  status: number;
  headers: http.IncomingHttpHeaders;
  body: string;
}

/** A request whose body is a stream of known length. */
export interface StreamRequest {
  /** Whose request it is. Its token stands in the headers. */
  session: Session;
  method: 'PATCH' | 'PUT' | 'POST';
  address: string;
  headers: Record<string, string>;
  length: number;
  body: Readable;
  /** Hears how many bytes of this body have been handed to the line. */
  onProgress(bytes: number): void;
  signal: AbortSignal;
}

/**
 * Streams a body to a site with its Content-Length; no more than a few buffers of it are in memory at a time. `fetch`
 * would send it chunked and hold more of it back.
 * @throws SiteError 'unreachable' where the line breaks or stands still; the body's own error where that cannot be read; the
 *   signal's reason where it aborts
 */
export async function streamToSite(request: StreamRequest): Promise<StreamAnswer> {
  const { session, method, address } = request;
  const asked = { method, address, since: performance.now() };
  const answer = await streamed(request).catch(async (error) => {
    await session.heard(undefined, asked);
    throw error;
  });
  const field = (name: string) => answer.headers[name]?.toString();
  await session.heard({ status: answer.status, field }, asked);
  return answer;
}

async function streamed(request: StreamRequest): Promise<StreamAnswer> {
  const { method, address, headers, length, body, onProgress, signal } = request;
  const send = address.startsWith('https:') ? https.request : http.request;
  const outgoing = send(address, { method, headers: { ...headers, 'content-length': length }, signal });
  outgoing.setTimeout(STALLED_AFTER_MILLISECONDS, () => outgoing.destroy(new Error('the line stood still')));
  // Whichever breaks first has broken the other: a file that cannot be read is not the site's fault.
  let [lineBroke, unread]: [boolean, Error | undefined] = [false, undefined];
  body.on('error', (error) => {
    if (!lineBroke) unread = error;
  });
  const answered = new Promise<StreamAnswer>((resolve, reject) => {
    outgoing.on('error', (error) => {
      lineBroke = true;
      reject(error);
    });
    outgoing.on('response', (answer) => {
      let text = '';
      answer.setEncoding('utf8');
      answer.on('data', (chunk: string) => {
        text = (text + chunk).slice(0, 100_000);
      });
      answer.on('error', reject);
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: text }));
    });
  });
  let handed = 0;
  // Listening beside the pipe costs nothing; a transform in between would cost a third of the speed.
  body.on('data', (chunk: Buffer) => {
    handed += chunk.length;
    onProgress(handed);
  });
  // A site that refuses answers before it has read everything; that answer counts, not the broken pipe that follows it.
  const sent = pipeline(body, outgoing).then(() => answered);
  try {
    return await Promise.race([answered, sent]);
  } catch (error) {
    signal.throwIfAborted();
    if (unread) throw unread;
    throw new SiteError('unreachable', `The line to the site broke (${(error as Error).message})`);
  } finally {
    sent.catch(() => undefined);
    answered.catch(() => undefined);
    body.destroy();
  }
}

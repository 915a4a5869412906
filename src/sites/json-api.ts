import { retryAfterSeconds } from '@/core/work';
import { type AnswerHead, type Session, SiteError } from './contract';

const PATIENCE_MILLISECONDS = 30_000;
/** For a body of some megabytes on a slow line. */
const LONG_PATIENCE_MILLISECONDS = 300_000;

/** One request to a site's interface. */
export interface ApiRequest {
  method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  json?: unknown;
  /** A body of a few megabytes at most. */
  bytes?: Buffer | string;
  type?: string;
  headers?: Record<string, string>;
  /** Ends the request early. */
  signal?: AbortSignal;
  /** Sent as Idempotency-Key, so that the same request twice makes one thing. */
  key?: string;
}

/**
 * Asks a site that speaks JSON with bearer tokens (RFC 6750). A token that has run out is renewed once.
 * @param explain how the site words its errors; problem details where it does not say otherwise
 * @throws SiteError
 */
export async function askSite(
  session: Session,
  address: string,
  request: ApiRequest = {},
  explain: Explain = problemText,
): Promise<unknown> {
  const token = await session.accessToken();
  let answer = await send(session, address, request, token);
  if (answer.status === 401) answer = await send(session, address, request, await session.accessToken(token));
  if (answer.ok) return answer.status === 204 ? undefined : answer.json();
  throw await errorFrom(answer, explain);
}

async function send(session: Session, address: string, request: ApiRequest, token: string): Promise<Response> {
  const headers: Record<string, string> = { authorization: `Bearer ${token}` };
  if (request.json !== undefined) headers['content-type'] = 'application/json';
  if (request.type) headers['content-type'] = request.type;
  Object.assign(headers, request.headers);
  if (request.key) headers['idempotency-key'] = request.key;
  const { json, bytes } = request;
  const body =
    json !== undefined
      ? JSON.stringify(json)
      : Buffer.isBuffer(bytes)
        ? new Uint8Array(bytes.buffer as ArrayBuffer, bytes.byteOffset, bytes.byteLength)
        : bytes;
  const patience = AbortSignal.timeout(bytes ? LONG_PATIENCE_MILLISECONDS : PATIENCE_MILLISECONDS);
  const signal = request.signal ? AbortSignal.any([patience, request.signal]) : patience;
  const method = request.method ?? 'GET';
  const asked = { method, address, since: performance.now() };
  const answer = await fetch(address, { method, headers, body, signal }).catch(async (error: Error) => {
    await session.heard(undefined, asked);
    throw new SiteError('unreachable', `The site does not answer (${error.message})`);
  });
  await session.heard(headOf(answer), asked);
  return answer;
}

/** What an answer says about itself, for `Session.heard`. */
export const headOf = (answer: Response): AnswerHead => ({
  status: answer.status,
  field: (name) => answer.headers.get(name) ?? undefined,
});

/** What the body of an error says to people, in a site's own form; undefined where it says nothing. */
export type Explain = (body: unknown) => string | undefined;

/** What problem details say (RFC 9457, section 3.1): `detail`, or else `title`. */
export const problemText: Explain = (body) => {
  const { title, detail } = (body ?? {}) as { title?: string; detail?: string };
  return detail ?? title;
};

/** The error that an answer stands for, with what a person gets to read. */
export async function errorFrom(answer: Response, explain: Explain = problemText): Promise<SiteError> {
  const body: unknown = await answer.json().catch(() => ({}));
  const says = explain(body) ?? `The site answers ${answer.status}`;
  return errorForStatus(answer.status, says, answer.headers.get('retry-after') ?? undefined);
}

/** Statuses that say not now, but later: too slow, too early, too many (RFC 9110, 8470 and 6585). */
const LATER = [408, 425, 429];

/**
 * The kind of error that an HTTP status means for a drop.
 * @param says what a person gets to read
 * @param retryAfter the field Retry-After as it came
 */
export function errorForStatus(status: number, says: string, retryAfter?: string): SiteError {
  if (LATER.includes(status) || status >= 500) {
    return new SiteError('busy', says, retryAfterSeconds(retryAfter, new Date()));
  }
  // RFC 9110, section 15.5.10: a conflict with the state that the thing is in now, which may pass.
  if (status === 409) return new SiteError('conflict', says);
  if (status === 401 || status === 403) return new SiteError('permission', says);
  if (status === 404 || status === 410) return new SiteError('missing', says);
  return new SiteError('refused', says);
}

/** A body as JSON; undefined where it is none. */
export function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

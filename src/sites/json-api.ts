import { type Session, SiteError } from './contract';

const PATIENCE_MILLISECONDS = 30_000;

/** One request to a site's interface. */
export interface ApiRequest {
  method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  json?: unknown;
  bytes?: Buffer;
  type?: string;
  /** Sent as Idempotency-Key, so that the same request twice makes one thing. */
  key?: string;
}

/**
 * Asks a site that speaks JSON with bearer tokens and problem details (RFC 6750, RFC 9457). A token that has run out
 * is renewed once.
 * @throws SiteError
 */
export async function askSite(session: Session, address: string, request: ApiRequest = {}): Promise<unknown> {
  const token = await session.accessToken();
  let answer = await send(address, request, token);
  if (answer.status === 401) answer = await send(address, request, await session.accessToken(token));
  if (answer.ok) return answer.status === 204 ? undefined : answer.json();
  throw await errorFrom(answer);
}

async function send(address: string, request: ApiRequest, token: string): Promise<Response> {
  const headers: Record<string, string> = { authorization: `Bearer ${token}` };
  if (request.json !== undefined) headers['content-type'] = 'application/json';
  if (request.type) headers['content-type'] = request.type;
  if (request.key) headers['idempotency-key'] = request.key;
  const body =
    request.json !== undefined ? JSON.stringify(request.json) : request.bytes && new Uint8Array(request.bytes);
  const signal = AbortSignal.timeout(PATIENCE_MILLISECONDS);
  return fetch(address, { method: request.method ?? 'GET', headers, body, signal }).catch((error: Error) => {
    throw new SiteError('unreachable', `The site does not answer (${error.message})`);
  });
}

/** The error that an answer stands for; `detail` of problem details is what a person gets to read. */
export async function errorFrom(answer: Response): Promise<SiteError> {
  const problem = (await answer.json().catch(() => ({}))) as { title?: string; detail?: string };
  const says = problem.detail ?? problem.title ?? `The site answers ${answer.status}`;
  return errorForStatus(answer.status, says, answer.headers.get('retry-after') ?? undefined);
}

/** The kind of error that an HTTP status means for a drop. */
export function errorForStatus(status: number, says: string, retryAfter?: string): SiteError {
  if (status === 429 || status >= 500) return new SiteError('busy', says, Number(retryAfter) || undefined);
  if (status === 401 || status === 403) return new SiteError('permission', says);
  if (status === 404 || status === 410) return new SiteError('missing', says);
  return new SiteError('refused', says);
}

import { ValidationError } from 'yup';
import { MANAGER } from '@/core/actor';
import { MarkerFileError } from '@/core/markers';
import { isDatabaseAway } from '@/desk/database-away';
import { ChangedMeanwhile, DeskError, type DeskErrorKind } from '@/desk/desk-error';
import { log } from '@/desk/log';
import { notingAnnounced } from '@/desk/views/hear';
import { askedBy } from '@/desk/window';
import { NoJson, TooLarge } from './json-body';

const LOCAL_NAMES = new Set(['127.0.0.1', 'localhost', '[::1]']);

const hostName = (host: string) => host.replace(/:\d+$/, '');

/**
 * Why a request must not be answered: it names another host (a page elsewhere has bent a name to this machine), or it
 * changes something and comes from a page of another origin. Undefined where all is well.
 */
export function reasonToRefuse(request: Request): string | undefined {
  const host = request.headers.get('host') ?? '';
  if (!LOCAL_NAMES.has(hostName(host))) return 'This address is not served here';
  if (request.method === 'GET' || request.method === 'HEAD') return undefined;
  const origin = request.headers.get('origin');
  if (origin !== null) return origin === `http://${host}` ? undefined : 'This page may not change anything here';
  const from = request.headers.get('sec-fetch-site');
  return from === null || from === 'same-origin' || from === 'none'
    ? undefined
    : 'This page may not change anything here';
}

const STATUS: Record<DeskErrorKind, number> = {
  'not found': 404,
  'not taken': 422,
  'not now': 409,
  changed: 409,
  full: 507,
  site: 502,
};

/** An error as problem details (RFC 9457), which pages say as they are. */
function problem(status: number, detail: string, more: object = {}): Response {
  return Response.json(
    { status, detail, ...more },
    { status, headers: { 'content-type': 'application/problem+json' } },
  );
}

/** The answer that an error becomes. */
export function answerForError(error: unknown): Response {
  if (error instanceof ChangedMeanwhile) {
    const { field, now, id } = error;
    return problem(STATUS.changed, error.message, { changed: { field, now, id } });
  }
  if (error instanceof DeskError) return problem(STATUS[error.kind], error.message);
  if (error instanceof ValidationError) return problem(422, error.message);
  if (error instanceof MarkerFileError) return problem(422, `The marker file cannot be read. ${error.message}.`);
  if (error instanceof NoJson) return problem(400, error.message);
  if (error instanceof TooLarge) return problem(413, error.message);
  log.error({ error: error instanceof Error ? error.stack : String(error) }, 'request failed');
  if ((error as NodeJS.ErrnoException).code === 'ENOSPC') {
    return problem(507, 'The disk is full. Make room, then try again; nothing that was saved is lost.');
  }
  if (isDatabaseAway(error)) {
    return problem(
      503,
      'The database does not answer at the moment. It goes on by itself; nothing that was saved is lost.',
    );
  }
  return problem(500, 'Something unexpected happened; the logs say more. Nothing that was saved is lost.');
}

/** The window of a browser that a request came from, where it says so. */
function windowOf(request: Request): string | undefined {
  const id = request.headers.get('x-kettle-window') ?? '';
  return /^[\w-]{8,60}$/.test(id) ? id : undefined;
}

/** By these numbers a page that reads again what it has just changed knows the changes that it hears of as its own. */
const OWN_CHANGES = 'x-kettle-changes';
const MOST_OWN_CHANGES = 100;

type Handler<P> = (request: Request, params: P) => Promise<Response | object | undefined>;

/** A route handler with Host and Origin checked, its result sent as JSON and its errors as problem details. */
export function guarded<P = Record<string, never>>(handle: Handler<P>) {
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const refusal = reasonToRefuse(request);
    if (refusal) return problem(403, refusal);
    try {
      const params = await context.params;
      const changes: number[] = [];
      const work = () => notingAnnounced(changes, () => handle(request, params));
      const result = await askedBy({ who: MANAGER }, windowOf(request), work);
      if (result instanceof Response) return result;
      const headers = { [OWN_CHANGES]: changes.length > MOST_OWN_CHANGES ? '' : changes.join() };
      return Response.json(result ?? {}, { headers });
    } catch (error) {
      return answerForError(error);
    }
  };
}

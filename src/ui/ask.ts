import { WINDOW_ID } from './window-id';

/** What somebody else has changed since: the field with the value that it has now; of a marker, which. */
export interface ChangedField {
  field: string;
  now: unknown;
  id?: string;
}

/** An answer that says what was wrong; the message is for people. `status` is 0 where nothing answered. */
export class AskError extends Error {
  override name = 'AskError';
  constructor(
    message: string,
    readonly status: number,
    readonly changed?: ChangedField,
  ) {
    super(message);
  }

  /** Whether the same will go well once Kettle Drop is there again, without anybody changing anything. */
  get mayPass(): boolean {
    return [0, 502, 503, 504].includes(this.status);
  }
}

export interface AskInit {
  method?: string;
  json?: unknown;
  body?: BodyInit;
  /** Hears the numbers of the changes that it has made. */
  changes?: (ids: readonly number[]) => void;
}

/** Asks Kettle Drop's own interface. @throws AskError with a message that can be shown as it is */
export async function ask<T>(address: string, init: AskInit = {}): Promise<T> {
  const { method = 'GET', json, body, changes } = init;
  const headers: Record<string, string> = { 'x-kettle-window': WINDOW_ID };
  if (json !== undefined) headers['content-type'] = 'application/json';
  const text = json === undefined ? undefined : JSON.stringify(json);
  const answer = await fetch(address, {
    method,
    headers,
    body: text ?? body,
    // What is being saved goes through though the page is left. Browsers keep no more than 64 KiB alive (Fetch standard).
    keepalive: text !== undefined && text.length < 16_000,
  }).catch(() => {
    throw new AskError('Kettle Drop does not answer. Look whether it still runs.', 0);
  });
  const data = await answer.json().catch(() => ({}));
  if (!answer.ok) {
    const { detail, changed } = data as { detail?: string; changed?: ChangedField };
    throw new AskError(detail ?? `Kettle Drop answers ${answer.status}.`, answer.status, changed);
  }
  changes?.((answer.headers.get('x-kettle-changes') ?? '').split(',').filter(Boolean).map(Number));
  return data as T;
}

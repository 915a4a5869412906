/** An answer that says what was wrong; the message is for people. */
export class AskError extends Error {
  override name = 'AskError';
}

/** Asks Kettle Drop's own interface. @throws AskError with a message that can be shown as it is */
export async function ask<T>(
  address: string,
  init: { method?: string; json?: unknown; body?: BodyInit } = {},
): Promise<T> {
  const { method = 'GET', json, body } = init;
  const headers: Record<string, string> = json === undefined ? {} : { 'content-type': 'application/json' };
  const text = json === undefined ? undefined : JSON.stringify(json);
  const answer = await fetch(address, {
    method,
    headers,
    body: text ?? body,
    // What is being saved goes through though the page is left. Browsers keep no more than 64 KiB alive (Fetch standard).
    keepalive: text !== undefined && text.length < 16_000,
  }).catch(() => {
    throw new AskError('Kettle Drop does not answer. Look whether it still runs; what you typed is kept here.');
  });
  const data = await answer.json().catch(() => ({}));
  if (!answer.ok) throw new AskError((data as { detail?: string }).detail ?? `Kettle Drop answers ${answer.status}.`);
  return data as T;
}

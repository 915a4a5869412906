import { retryAfterSeconds } from '@/core/work';
import type { NoticeToTell } from './notice-to-tell';
import { signedFields } from './signature';

const PATIENCE_MILLISECONDS = 15_000;

/** A webhook did not take a notice; `retryAfter` seconds, where it says so. */
export class NotTaken extends Error {
  override name = 'NotTaken';
  constructor(
    message: string,
    readonly retryAfter?: number,
  ) {
    super(message);
  }
}

/**
 * Posts one notice to a webhook as JSON, signed. The id lets a receiver see what came twice.
 * @param id the same for every try
 * @throws NotTaken where the answer is none of success (RFC 9110, 15.3), or does not come in time
 */
export async function postNotice(address: string, secret: string, id: string, notice: NoticeToTell): Promise<void> {
  const body = JSON.stringify({ id, ...notice });
  const at = Math.floor(Date.now() / 1000);
  const headers = { 'content-type': 'application/json', 'kettle-id': id, ...signedFields(secret, at, body) };
  const signal = AbortSignal.timeout(PATIENCE_MILLISECONDS);
  // What leads elsewhere may lead anywhere: a redirection is not followed.
  const answer = await fetch(address, { method: 'POST', headers, body, signal, redirect: 'manual' }).catch(
    (error: Error) => {
      const cause = error.cause instanceof Error ? error.cause.message : error.message;
      throw new NotTaken(`The address does not answer (${cause})`);
    },
  );
  await answer.body?.cancel();
  if (answer.ok) return;
  const retryAfter = retryAfterSeconds(answer.headers.get('retry-after') ?? undefined, new Date());
  throw new NotTaken(`The address answers ${answer.status}`, retryAfter);
}

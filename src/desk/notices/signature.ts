import { createHmac, randomBytes } from 'node:crypto';

/** HMAC with SHA-256 (RFC 2104, FIPS 180-4), in hexadecimal. */
export const hmacSha256 = (key: string | Buffer, data: string | Buffer): string =>
  createHmac('sha256', key).update(data).digest('hex');

/**
 * The fields that let a receiver see that a webhook is ours, and new: the signature goes over the time stamp, a full stop and
 * the body.
 * @param secret as the receiver has it
 * @param at seconds since 1970
 */
export function signedFields(secret: string, at: number, body: string): Record<string, string> {
  return {
    'kettle-timestamp': String(at),
    'kettle-signature': `sha256=${hmacSha256(secret, `${at}.${body}`)}`,
  };
}

/** A secret that nobody can guess. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

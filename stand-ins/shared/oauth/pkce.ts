import { createHash, timingSafeEqual } from 'node:crypto';

/** Whether a verifier is the one whose SHA-256 was sent as the challenge (RFC 7636, section 4.6). */
export function provesChallenge(verifier: string, challenge: string): boolean {
  const made = createHash('sha256').update(verifier).digest('base64url');
  return made.length === challenge.length && timingSafeEqual(Buffer.from(made), Buffer.from(challenge));
}

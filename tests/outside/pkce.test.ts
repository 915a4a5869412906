import { createHash } from 'node:crypto';
import * as oauth from 'oauth4webapi';
import { describe, expect, it } from 'vitest';

describe('PKCE by RFC 7636, Appendix B', () => {
  const verifier = 'dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk';
  const challenge = 'E9Melhoa2OwvFrEMTJguCHaoeK1t8URWbuGJSstw-cM';

  it('gives the challenge of the example, on the side that asks', async () => {
    expect(await oauth.calculatePKCECodeChallenge(verifier)).toBe(challenge);
  });

  it('gives the challenge of the example, on the side that checks', () => {
    expect(createHash('sha256').update(verifier).digest('base64url')).toBe(challenge);
  });

  it('makes verifiers of 43 to 128 unreserved characters (4.1)', () => {
    for (let n = 0; n < 50; n += 1) expect(oauth.generateRandomCodeVerifier()).toMatch(/^[A-Za-z0-9\-._~]{43,128}$/);
  });
});

import { createHash } from 'node:crypto';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { authorisationFor } from '@/sites/authorisation';
import { provesChallenge } from '../../stand-ins/shared/oauth/pkce';

/** An authorisation server that notes what it is asked; its answers are those of RFC 8414 and RFC 6749, section 5.1. */
let server: http.Server;
let issuer: string;
const asked: URLSearchParams[] = [];

beforeAll(async () => {
  server = http.createServer((request, answer) => {
    let body = '';
    request.on('data', (chunk: Buffer) => {
      body += chunk;
    });
    request.on('end', () => {
      answer.setHeader('content-type', 'application/json');
      if (request.method === 'POST') {
        asked.push(new URLSearchParams(body));
        const tokens = { access_token: 'a', refresh_token: 'r', token_type: 'bearer', expires_in: 60 };
        return answer.end(JSON.stringify(tokens));
      }
      const [authorization_endpoint, token_endpoint] = [`${issuer}/authorise`, `${issuer}/token`];
      answer.end(JSON.stringify({ issuer, authorization_endpoint, token_endpoint }));
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

const s256 = (verifier: string) => createHash('sha256').update(verifier, 'ascii').digest('base64url');

describe('PKCE by RFC 7636', () => {
  // Appendix B.
  const verifier = 'dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk';
  const challenge = 'E9Melhoa2OwvFrEMTJguCHaoeK1t8URWbuGJSstw-cM';

  it('is asked for by us with a challenge that is the S256 of the verifier that we keep (4.2, 4.3)', async () => {
    expect(s256(verifier)).toBe(challenge);
    const { start } = authorisationFor(issuer, { 'videos.send': 'send' });
    const seen = new Set<string>();
    for (let n = 0; n < 20; n += 1) {
      const begun = await start('http://127.0.0.1:7300/back', 'state');
      const sent = new URL(begun.address).searchParams;
      expect(sent.get('code_challenge_method')).toBe('S256');
      expect(sent.get('code_challenge')).toBe(s256(begun.verifier));
      // 4.1: 43 to 128 unreserved characters.
      expect(begun.verifier).toMatch(/^[A-Za-z0-9\-._~]{43,128}$/);
      expect(begun.address).not.toContain(begun.verifier);
      seen.add(begun.verifier);
    }
    expect(seen.size).toBe(20);
  });

  it('is proved by us with the verifier along with the code (4.5)', async () => {
    const { finish } = authorisationFor(issuer, { 'videos.send': 'send' });
    const back = new URL('http://127.0.0.1:7300/back?code=c&state=st');
    await finish(back, 'http://127.0.0.1:7300/back', 'st', verifier);
    expect(asked.at(-1)?.get('code_verifier')).toBe(verifier);
    expect(asked.at(-1)?.get('grant_type')).toBe('authorization_code');
  });

  it('is checked by the stand-ins with the example of Appendix B (4.6)', () => {
    expect(provesChallenge(verifier, challenge)).toBe(true);
    expect(provesChallenge(`${verifier}x`, challenge)).toBe(false);
    expect(provesChallenge('', challenge)).toBe(false);
  });
});

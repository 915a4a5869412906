import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import cookie from '@fastify/cookie';
import formbody from '@fastify/formbody';
import fastify, { type FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { authorisationFor } from '@/sites/authorisation';
import { Permissions } from '../../stand-ins/shared/oauth/permissions';
import { registerOAuth } from '../../stand-ins/shared/oauth/server';

let server: FastifyInstance;
let address: string;
const people = [
  { id: 'p', name: 'P', email: 'p@p.example', channels: [{ id: 'c', name: 'C', about: '', mayEarn: false }] },
];

beforeAll(async () => {
  server = fastify();
  await server.register(formbody);
  await server.register(cookie);
  const permissions = new Permissions(mkdtempSync(path.join(os.tmpdir(), 'kettle-oauth-outside-')));
  const site = { name: 'S', address: '', people, clientIds: ['kettle-drop'], scopes: { read: 'read' }, style: '' };
  registerOAuth(server, site, permissions);
  address = await server.listen({ host: '127.0.0.1', port: 0 });
  site.address = address;
});
afterAll(() => server.close());

const post = (at: string, form: Record<string, string>, headers: Record<string, string> = {}) =>
  fetch(`${address}${at}`, { method: 'POST', redirect: 'manual', body: new URLSearchParams(form), headers });

/** A code, as a browser that goes through sign-in and consent gets it. */
async function code(ask: Record<string, string>): Promise<URL> {
  const signedIn = await post('/oauth/sign-in', { ...ask, personId: 'p' });
  const headers = { cookie: signedIn.headers.get('set-cookie')?.split(';')[0] ?? '' };
  const agreed = await post('/oauth/consent', { ...ask, channel: 'c', answer: 'permit' }, headers);
  return new URL(agreed.headers.get('location') ?? '');
}

const REDIRECT = 'http://127.0.0.1:7300/back';

describe('OAuth 2.0 as its RFCs show it', () => {
  it('asks with the parameters of RFC 6749, section 4.1.1, and RFC 7636, section 4.3', async () => {
    const { address: to, verifier } = await authorisationFor(address, { read: 'read', write: 'write' }).start(
      REDIRECT,
      'xyz',
    );
    const { searchParams } = new URL(to);
    expect(Object.fromEntries(searchParams)).toEqual({
      response_type: 'code',
      client_id: 'kettle-drop',
      redirect_uri: REDIRECT,
      scope: 'read write',
      state: 'xyz',
      code_challenge: expect.stringMatching(/^[A-Za-z0-9_-]{43}$/),
      code_challenge_method: 'S256',
    });
    expect(verifier).toMatch(/^[A-Za-z0-9\-._~]{43,128}$/);
  });

  it('answers with state (RFC 6749, 4.1.2) and iss (RFC 9207, 2); tokens as in section 5.1, not to be stored', async () => {
    // The pair of RFC 7636, appendix B.
    const verifier = 'dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk';
    const ask = {
      response_type: 'code',
      client_id: 'kettle-drop',
      redirect_uri: REDIRECT,
      state: 'xyz',
      scope: 'read',
      code_challenge: 'E9Melhoa2OwvFrEMTJguCHaoeK1t8URWbuGJSstw-cM',
      code_challenge_method: 'S256',
    };
    const back = await code(ask);
    expect(back.searchParams.get('state')).toBe('xyz');
    expect(back.searchParams.get('iss')).toBe(address);
    const grant = {
      grant_type: 'authorization_code',
      code: back.searchParams.get('code') ?? '',
      redirect_uri: REDIRECT,
    };
    const tokens = await post('/oauth/token', { ...grant, code_verifier: verifier, client_id: 'kettle-drop' });
    expect(tokens.headers.get('cache-control')).toBe('no-store');
    const body = (await tokens.json()) as Record<string, unknown>;
    expect(body).toMatchObject({ token_type: 'Bearer', expires_in: expect.any(Number), scope: 'read' });

    // RFC 7009, section 2.1 and 2.2: 200 whether there was such a token or not; afterwards it is no good.
    for (const token of [String(body.refresh_token), '45ghiukldjahdnhzdauz']) {
      expect((await post('/oauth/revoke', { token, token_type_hint: 'refresh_token' })).status).toBe(200);
    }
    const refreshed = await post('/oauth/token', {
      grant_type: 'refresh_token',
      refresh_token: String(body.refresh_token),
    });
    // RFC 6749, section 5.2.
    expect([refreshed.status, await refreshed.json()]).toEqual([400, { error: 'invalid_grant' }]);
  });

  it('refuses a verifier other than the challenge’s (RFC 7636, 4.6), and a grant that it does not know (RFC 6749, 5.2)', async () => {
    const ask = {
      response_type: 'code',
      client_id: 'kettle-drop',
      redirect_uri: REDIRECT,
      state: 's',
      scope: 'read',
      code_challenge: 'E9Melhoa2OwvFrEMTJguCHaoeK1t8URWbuGJSstw-cM',
      code_challenge_method: 'S256',
    };
    const back = await code(ask);
    const grant = {
      grant_type: 'authorization_code',
      code: back.searchParams.get('code') ?? '',
      redirect_uri: REDIRECT,
    };
    const wrong = await post('/oauth/token', { ...grant, code_verifier: 'x'.repeat(43) });
    expect([wrong.status, await wrong.json()]).toEqual([400, { error: 'invalid_grant' }]);
    const other = await post('/oauth/token', { grant_type: 'password' });
    expect(await other.json()).toEqual({ error: 'unsupported_grant_type' });
  });

  it('publishes the metadata that RFC 8414, section 2, requires, at the address of section 3', async () => {
    const metadata = (await (await fetch(`${address}/.well-known/oauth-authorization-server`)).json()) as object;
    // Section 2: issuer and response_types_supported are REQUIRED; the endpoints, since these grants use them.
    expect(metadata).toMatchObject({
      issuer: address,
      response_types_supported: ['code'],
      authorization_endpoint: expect.stringContaining(address),
      token_endpoint: expect.stringContaining(address),
      revocation_endpoint: expect.stringContaining(address),
      code_challenge_methods_supported: ['S256'],
    });
  });
});

import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import cookie from '@fastify/cookie';
import formbody from '@fastify/formbody';
import fastify, { type FastifyInstance } from 'fastify';
import { beforeEach, describe, expect, it } from 'vitest';
import { answerProblems, problemDetails } from '../problem';
import { Permissions } from './permissions';
import { registerOAuth } from './server';

const VERIFIER = 'dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk';
const ASK = {
  response_type: 'code',
  client_id: 'kettle-drop',
  redirect_uri: 'http://127.0.0.1:7300/back',
  scope: 'look',
  state: 'xyz',
  code_challenge: createHash('sha256').update(VERIFIER).digest('base64url'),
  code_challenge_method: 'S256',
};

let server: FastifyInstance;
let permissions: Permissions;
let folder: string;

const form = (url: string, fields: Record<string, string>, headers: Record<string, string> = {}) =>
  server.inject({
    method: 'POST',
    url,
    headers: { 'content-type': 'application/x-www-form-urlencoded', ...headers },
    payload: new URLSearchParams(fields).toString(),
  });

beforeEach(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-oauth-'));
  permissions = new Permissions(folder);
  server = fastify();
  answerProblems(server, problemDetails);
  await server.register(formbody);
  await server.register(cookie);
  const channels = [{ id: 'c1', name: 'One', about: 'The first', mayEarn: false }];
  const people = [{ id: 'p1', name: 'Pat', email: 'pat@example.com', channels }];
  const site = { name: 'Testfold', address: 'http://127.0.0.1:9', people, clientIds: ['kettle-drop'], style: '' };
  registerOAuth(server, { ...site, scopes: { look: 'look at things' } }, permissions);
});

async function code(): Promise<string> {
  const answer = await form('/oauth/consent', { ...ASK, answer: 'permit', channel: 'c1' }, { cookie: 'person=p1' });
  return new URL(answer.headers.location ?? '').searchParams.get('code') ?? '';
}

async function tokens(): Promise<{ access_token: string; refresh_token: string; expires_in: number }> {
  const fields = {
    grant_type: 'authorization_code',
    code: await code(),
    redirect_uri: ASK.redirect_uri,
    code_verifier: VERIFIER,
  };
  return (await form('/oauth/token', fields)).json();
}

describe('sign-in and consent', () => {
  it('publishes its metadata (RFC 8414, section 3.2)', async () => {
    const metadata = (await server.inject('/.well-known/oauth-authorization-server')).json();
    expect(metadata).toMatchObject({
      issuer: 'http://127.0.0.1:9',
      response_types_supported: ['code'],
      code_challenge_methods_supported: ['S256'],
    });
  });

  it('asks who one is, then lists in words what is permitted, for which channels', async () => {
    const first = await server.inject({ url: '/oauth/authorize', query: ASK });
    expect(first.body).toContain('Who are you here?');
    const second = await server.inject({ url: '/oauth/authorize', query: ASK, headers: { cookie: 'person=p1' } });
    expect(second.body).toContain('look at things');
    expect(second.body).toContain('The first');
  });

  it('sends back with the state, and with an error where nothing is permitted (RFC 6749, 4.1.2.1)', async () => {
    const refused = await form('/oauth/consent', { ...ASK, answer: 'refuse' }, { cookie: 'person=p1' });
    const back = new URL(refused.headers.location ?? '');
    expect(back.searchParams.get('error')).toBe('access_denied');
    expect(back.searchParams.get('state')).toBe('xyz');
    const none = await form('/oauth/consent', { ...ASK, answer: 'permit' }, { cookie: 'person=p1' });
    expect(new URL(none.headers.location ?? '').searchParams.get('error_description')).toBe('No channel was chosen');
  });

  it('never sends anybody to an address that is not on this machine, nor for an unknown program', async () => {
    const away = await server.inject({
      url: '/oauth/authorize',
      query: { ...ASK, redirect_uri: 'https://evil.example/' },
    });
    expect(away.statusCode).toBe(400);
    const unknown = await server.inject({ url: '/oauth/authorize', query: { ...ASK, client_id: 'other' } });
    expect(unknown.statusCode).toBe(400);
    const plain = await server.inject({ url: '/oauth/authorize', query: { ...ASK, code_challenge_method: 'plain' } });
    expect(plain.statusCode).toBeGreaterThanOrEqual(400);
  });

  it('lets nobody consent who is not signed in', async () => {
    expect((await form('/oauth/consent', { ...ASK, answer: 'permit', channel: 'c1' })).statusCode).toBe(401);
  });
});

describe('tokens', () => {
  it('are given for a code with its verifier, once (RFC 6749, 4.1.2; RFC 7636, 4.6)', async () => {
    const given = await code();
    const fields = {
      grant_type: 'authorization_code',
      code: given,
      redirect_uri: ASK.redirect_uri,
      code_verifier: VERIFIER,
    };
    expect((await form('/oauth/token', { ...fields, code_verifier: 'wrong' })).json()).toEqual({
      error: 'invalid_grant',
    });
    const first = await form('/oauth/token', fields);
    expect(first.headers['cache-control']).toBe('no-store');
    expect(permissions.grantOf(first.json().access_token)?.channelIds).toEqual(['c1']);
    expect((await form('/oauth/token', fields)).json()).toEqual({ error: 'invalid_grant' });
    expect(permissions.grantOf(first.json().access_token)).toBeUndefined();
  });

  it('are renewed by a refresh token that serves once; its second use ends everything (RFC 6749, 10.4)', async () => {
    const first = await tokens();
    const renew = (token: string) => form('/oauth/token', { grant_type: 'refresh_token', refresh_token: token });
    const second = (await renew(first.refresh_token)).json();
    expect(permissions.grantOf(second.access_token)).toBeDefined();
    expect((await renew(first.refresh_token)).json()).toEqual({ error: 'invalid_grant' });
    expect(permissions.grantOf(second.access_token)).toBeUndefined();
  });

  it('run out, are revoked, and are taken back', async () => {
    const first = await tokens();
    permissions.expireAccess();
    expect(permissions.grantOf(first.access_token)).toBeUndefined();
    const second = await tokens();
    await form('/oauth/revoke', { token: second.refresh_token });
    expect(permissions.grantOf(second.access_token)).toBeUndefined();
    expect((await form('/oauth/revoke', { token: 'unknown' })).statusCode).toBe(200);
    const third = await tokens();
    permissions.takeBack('p1');
    expect(permissions.grantOf(third.access_token)).toBeUndefined();
  });

  it('are kept as fingerprints only', async () => {
    const { access_token, refresh_token } = await tokens();
    const kept = readdirSync(path.join(folder, 'tokens'))
      .map((file) => readFileSync(path.join(folder, 'tokens', file), 'utf8'))
      .join();
    expect(kept).not.toContain(access_token);
    expect(kept).not.toContain(refresh_token);
  });

  it('are not given for another kind of grant', async () => {
    expect((await form('/oauth/token', { grant_type: 'password' })).json()).toEqual({
      error: 'unsupported_grant_type',
    });
  });
});

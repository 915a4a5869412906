import { createReadStream } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { Readable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Session } from './contract';
import { askSite } from './json-api';
import { siteById, siteIds } from './registry';
import { streamToSite } from './stream-request';

let server: http.Server;
let address: string;
const seen: { method?: string; headers: http.IncomingHttpHeaders; body: string }[] = [];

beforeAll(async () => {
  server = http.createServer((request, answer) => {
    let body = '';
    request.on('data', (chunk: Buffer) => {
      body += chunk;
    });
    request.on('end', () => {
      seen.push({ method: request.method, headers: request.headers, body });
      const url = new URL(request.url ?? '', 'http://x');
      const status = Number(url.searchParams.get('status') ?? 200);
      if (url.pathname === '/break') return request.socket.destroy();
      if (url.pathname === '/token' && request.headers.authorization !== 'Bearer fresh')
        answer.writeHead(401).end('{}');
      else {
        answer.writeHead(status, { 'content-type': 'application/problem+json', 'retry-after': '7' });
        answer.end(status === 204 ? undefined : JSON.stringify({ title: 'No', detail: 'The reason' }));
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

const session: Session = {
  accessToken: async (stale) => (stale === undefined ? 'old' : 'fresh'),
  heard: async () => undefined,
};

describe('asking a site', () => {
  it('sends the token, the key and the JSON', async () => {
    await askSite(session, `${address}/`, { method: 'POST', json: { a: 1 }, key: 'k1' });
    expect(seen.at(-1)).toMatchObject({
      method: 'POST',
      body: '{"a":1}',
      headers: { authorization: 'Bearer old', 'idempotency-key': 'k1', 'content-type': 'application/json' },
    });
  });

  it('renews a token that was refused, once', async () => {
    expect(await askSite(session, `${address}/token`)).toEqual({ title: 'No', detail: 'The reason' });
    const never: Session = { ...session, accessToken: async () => 'old' };
    await expect(askSite(never, `${address}/token`)).rejects.toMatchObject({ kind: 'permission' });
  });

  it.each([
    [429, 'busy'],
    [503, 'busy'],
    [403, 'permission'],
    [404, 'missing'],
    [410, 'missing'],
    [408, 'busy'],
    [409, 'conflict'],
    [425, 'busy'],
    [422, 'refused'],
  ])('tells what status %i means', async (status, kind) => {
    await expect(askSite(session, `${address}/?status=${status}`)).rejects.toMatchObject({
      kind,
      message: 'The reason',
    });
  });

  it('says how long to wait, and that nobody answers', async () => {
    await expect(askSite(session, `${address}/?status=503`)).rejects.toMatchObject({ retryAfter: 7 });
    await expect(askSite(session, `${address}/break`)).rejects.toMatchObject({ kind: 'unreachable' });
    await expect(askSite(session, 'http://127.0.0.1:1/')).rejects.toMatchObject({ kind: 'unreachable' });
    expect(await askSite(session, `${address}/?status=204`)).toBeUndefined();
  });
});

describe('streaming to a site', () => {
  const stream = (path: string, body: string, signal = new AbortController().signal) =>
    streamToSite({
      session,
      method: 'PUT',
      address: `${address}${path}`,
      headers: { 'x-own': 'yes' },
      length: body.length,
      body: Readable.from([Buffer.from(body)]),
      onProgress: () => {},
      signal,
    });

  it('sends a body with its length, and gives the answer', async () => {
    const answer = await stream('/?status=201', 'bytes');
    expect(answer).toMatchObject({ status: 201, body: expect.stringContaining('The reason') });
    expect(seen.at(-1)).toMatchObject({ body: 'bytes', headers: { 'content-length': '5', 'x-own': 'yes' } });
  });

  it('takes a file that cannot be read for what it is, and not for a broken line', async () => {
    const body = createReadStream('/nowhere/at-all.mp4');
    const asked = {
      session,
      method: 'PUT' as const,
      address: `${address}/`,
      headers: {},
      length: 5,
      body,
      onProgress: () => {},
    };
    await expect(streamToSite({ ...asked, signal: new AbortController().signal })).rejects.toMatchObject({
      code: 'ENOENT',
    });
  });

  it('tells a broken line, and an abort by its reason', async () => {
    await expect(stream('/break', 'bytes')).rejects.toMatchObject({ kind: 'unreachable' });
    const gone = new AbortController();
    gone.abort(new Error('taken away'));
    await expect(stream('/', 'bytes', gone.signal)).rejects.toThrow('taken away');
  });
});

describe('the register of sites', () => {
  it('gives the same adapter for the same address, and refuses an unknown site', () => {
    expect(siteIds()).toContain('lanternfold');
    expect(siteById('lanternfold', 7310)).toBe(siteById('lanternfold', 7310));
    expect(() => siteById('nowhere', 7310)).toThrow(/nowhere/);
  });
});

import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import fastify from 'fastify';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Faults } from './faults';
import { answerProblems, problemDetails } from './problem';
import { Records } from './records';
import { stamp } from './seek';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-stand-in-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

/** Faults as they are set over HTTP, and the server that they are set on. */
async function faultsOn() {
  const file = path.join(folder, 'faults.json');
  const faults = new Faults(file);
  const server = fastify();
  answerProblems(server, problemDetails);
  faults.register(server);
  server.get('/api/me', async () => ({ id: 'me' }));
  const set = (payload: object) => server.inject({ method: 'PUT', url: '/control/faults', payload });
  return { file, faults, server, set };
}

/** The bytes that come through a line. */
async function through(faults: Faults, name: string, sizes: number[]): Promise<{ bytes: number; cut: boolean }> {
  let [bytes, cut] = [0, false];
  const sink = new Writable({
    write(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      done();
    },
  });
  const line = faults.line(name, () => {
    cut = true;
  });
  await pipeline(Readable.from(sizes.map((size) => Buffer.alloc(size))), line, sink);
  return { bytes, cut };
}

describe('faults', () => {
  it('strike as often as was said, and outlast a restart', async () => {
    const { file, faults, set } = await faultsOn();
    expect((await set([{ kind: 'turn down', match: 'strop', times: 2 }])).statusCode).toBe(200);
    expect(faults.strike('turn down', 'keel.mp4')).toBeUndefined();
    expect(faults.strike('turn down', 'strop.mp4')).toBeDefined();
    const restarted = new Faults(file);
    expect(restarted.strike('turn down', 'strop.mp4')).toBeDefined();
    expect(restarted.strike('turn down', 'strop.mp4')).toBeUndefined();
  });

  it('are refused where they are none', async () => {
    const { set, faults } = await faultsOn();
    for (const bad of [[{ kind: 'earthquake' }], [{ kind: 'cut', bytes: -1 }], [{ kind: 'answer', status: 200 }]]) {
      expect((await set(bad)).statusCode).toBeGreaterThanOrEqual(400);
    }
    expect(faults.strike('cut')).toBeUndefined();
  });

  it('cut a line after so many bytes, once', async () => {
    const { faults, set } = await faultsOn();
    await set([{ kind: 'cut', bytes: 150, times: 1 }]);
    expect(await through(faults, 'a.mp4', [100, 100, 100])).toMatchObject({ cut: true });
    expect(await through(faults, 'a.mp4', [100, 100, 100])).toEqual({ bytes: 300, cut: false });
  });

  it('answer in the place of the site, with the time to wait, and never in that of the control', async () => {
    const { server, set } = await faultsOn();
    await set([{ kind: 'answer', status: 429, retryAfter: 7, times: 1 }]);
    expect((await server.inject('/control/faults')).statusCode).toBe(200);
    const busy = await server.inject('/api/me');
    // RFC 6585, section 4, and RFC 9110, section 10.2.3: 429 with Retry-After in seconds.
    expect([busy.statusCode, busy.headers['retry-after']]).toEqual([429, '7']);
    expect((await server.inject('/api/me')).statusCode).toBe(200);
  });

  it('strike only the address that they name', async () => {
    const { server, set } = await faultsOn();
    await set([{ kind: 'answer', path: '/videos' }]);
    expect((await server.inject('/api/me')).statusCode).toBe(200);
    expect((await server.inject('/api/videos')).statusCode).toBe(503);
    await server.inject({ method: 'DELETE', url: '/control/faults' });
    expect((await server.inject('/api/videos')).statusCode).toBe(404);
  });
});

describe('records', () => {
  interface Thing {
    id: string;
    name: string;
  }

  it('are written through, and there again after a restart', () => {
    const things = new Records<Thing>(path.join(folder, 'things'));
    things.put({ id: 'a', name: 'One' });
    things.put({ id: 'b', name: 'Two' });
    things.change('a', { name: 'Other' });
    things.delete('b');
    const again = new Records<Thing>(path.join(folder, 'things'));
    expect(again.all()).toEqual([{ id: 'a', name: 'Other' }]);
    expect(again.find(({ name }) => name === 'Other')?.id).toBe('a');
  });

  it('say where one is gone that is to be changed', () => {
    const things = new Records<Thing>(path.join(folder, 'things'));
    expect(() => things.change('a', { name: 'x' })).toThrow(/gone/);
  });

  it('never take a path for an id', () => {
    const things = new Records<Thing>(path.join(folder, 'things'));
    for (const id of ['../x', 'a/b', '', 'a.b']) expect(() => things.put({ id, name: 'x' })).toThrow(/no record id/);
  });
});

describe('a stamp', () => {
  it('has hours only where there are some', () => {
    expect([0, 59, 60, 3599, 3600, 36_061].map(stamp)).toEqual([
      '0:00',
      '0:59',
      '1:00',
      '59:59',
      '1:00:00',
      '10:01:01',
    ]);
  });
});

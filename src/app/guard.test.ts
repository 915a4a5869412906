import { afterAll, describe, expect, it, vi } from 'vitest';
import { ValidationError } from 'yup';

/** How many changes the next handler tells of. */
let announced = 0;
vi.mock('@/desk/views/hear', () => ({
  notingAnnounced(ids: number[], work: () => Promise<unknown>) {
    ids.push(...Array.from({ length: announced }, (_, n) => n + 1));
    return work();
  },
}));
// Files of one process share what they have loaded: this one has its own, and leaves nothing of it to the next.
vi.resetModules();
const { MarkerFileError } = await import('@/core/markers');
const { ChangedMeanwhile, DeskError } = await import('@/desk/desk-error');
const { answerForError, guarded, reasonToRefuse } = await import('./guard');
const { NoJson } = await import('./json-body');
afterAll(() => vi.resetModules());

const request = (method: string, headers: Record<string, string>) =>
  new Request('http://127.0.0.1:7300/x', { method, headers });

describe('who may ask', () => {
  it.each(['127.0.0.1:7300', 'localhost:7300', '[::1]:7300', 'localhost'])('this machine as %s', (host) => {
    expect(reasonToRefuse(request('GET', { host }))).toBeUndefined();
    expect(reasonToRefuse(request('POST', { host, origin: `http://${host}` }))).toBeUndefined();
  });

  it.each(['kettle.example', '127.0.0.1.evil.example:7300', 'localhost.evil.example', ''])(
    'not a name bent to it: %s',
    (host) => {
      expect(reasonToRefuse(request('GET', { host }))).toBeDefined();
    },
  );

  it('may look from anywhere, but change nothing from a page of another origin', () => {
    const host = '127.0.0.1:7300';
    expect(reasonToRefuse(request('GET', { host, origin: 'http://evil.example' }))).toBeUndefined();
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE']) {
      expect(reasonToRefuse(request(method, { host, origin: 'http://evil.example' }))).toBeDefined();
      expect(reasonToRefuse(request(method, { host, origin: 'http://127.0.0.1:9999' }))).toBeDefined();
      expect(reasonToRefuse(request(method, { host, origin: 'null' }))).toBeDefined();
      expect(reasonToRefuse(request(method, { host, 'sec-fetch-site': 'cross-site' }))).toBeDefined();
      expect(reasonToRefuse(request(method, { host }))).toBeUndefined();
    }
  });
});

describe('what an error becomes', () => {
  it.each([
    [new DeskError('not found', 'gone'), 404],
    [new DeskError('not taken', 'no'), 422],
    [new DeskError('not now', 'later'), 409],
    [new DeskError('full', 'no room'), 507],
    [new DeskError('site', 'silent'), 502],
    [new ValidationError('title is too long'), 422],
    [new MarkerFileError('bad', 3), 422],
    [new NoJson('no JSON'), 400],
    // A fault of ours is not taken for a request that cannot be read.
    [new SyntaxError('json'), 500],
    [new ChangedMeanwhile('title', 'Theirs'), 409],
    [Object.assign(new Error('x'), { code: 'ENOSPC' }), 507],
  ])('%s is %i', async (error, status) => {
    const answer = answerForError(error);
    expect(answer.status).toBe(status);
    expect(answer.headers.get('content-type')).toBe('application/problem+json');
    expect((await answer.json()).detail).toBeTruthy();
  });

  it('tells nothing of an unexpected one but that it happened', async () => {
    const body = await answerForError(new Error('password is hunter2')).text();
    expect(body).toContain('unexpected');
    expect(body).not.toContain('hunter2');
  });

  it('names the line of a marker file', async () => {
    expect((await answerForError(new MarkerFileError('odd', 3)).json()).detail).toBe(
      'The marker file cannot be read. Line 3: odd.',
    );
  });
});

describe('a guarded handler', () => {
  it('answers JSON, errors as problems, and refuses before it does anything', async () => {
    let ran = 0;
    const handler = guarded(async () => {
      ran += 1;
      if (ran > 1) throw new DeskError('not now', 'Later.');
      return { ran };
    });
    const context = { params: Promise.resolve({}) };
    const ask = (host: string) => handler(request('GET', { host }), context);
    expect(await (await ask('localhost')).json()).toEqual({ ran: 1 });
    expect((await ask('localhost')).status).toBe(409);
    expect((await ask('evil.example')).status).toBe(403);
    expect(ran).toBe(2);
  });

  it('tells the numbers of the changes that it has made, and none where they are too many for a field', async () => {
    const told = async (count: number) => {
      announced = count;
      const handler = guarded(async () => undefined);
      const answer = await handler(request('GET', { host: 'localhost' }), { params: Promise.resolve({}) });
      return answer.headers.get('x-kettle-changes');
    };
    expect([await told(0), await told(3), await told(101)]).toEqual(['', '1,2,3', '']);
  });
});

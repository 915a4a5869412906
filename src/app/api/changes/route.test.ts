import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { hearChanges } from '@/desk/views/hear';

type FeedEntry = Parameters<Parameters<typeof hearChanges>[0]>[0][number];

let tell: ((entries: FeedEntry[]) => void) | undefined;
let listening = 0;

vi.mock('@/desk/views/hear', () => ({
  notingAnnounced: (_: number[], work: () => Promise<unknown>) => work(),
  hearChanges(listener: (entries: FeedEntry[]) => void) {
    tell = listener;
    listening += 1;
    return () => {
      listening -= 1;
    };
  },
}));
// Files of one process share what they have loaded: this one has its own, and leaves nothing of it to the next.
vi.resetModules();
const { GET } = await import('./route');
afterAll(() => vi.resetModules());

const entry = (subject: string, id = 1): FeedEntry => ({ id, topic: 'video', subject });
const read = async (reader: ReadableStreamDefaultReader<Uint8Array>) =>
  new TextDecoder().decode((await reader.read()).value);

async function listen(ending = new AbortController(), query = '') {
  const headers = { host: '127.0.0.1:7300' };
  const request = new Request(`http://127.0.0.1:7300/api/changes${query}`, { signal: ending.signal, headers });
  const answer = await GET(request, { params: Promise.resolve({}) });
  return { answer, reader: answer.body?.getReader() as ReadableStreamDefaultReader<Uint8Array> };
}

beforeEach(() => {
  listening = 0;
});

// WHATWG HTML, 9.2.5 and 9.2.6: fields end with a line, an event with an empty one.
describe('the stream of changes', () => {
  it('says when to come back, then each batch of changes as one event', async () => {
    const { answer, reader } = await listen();
    expect(answer.headers.get('content-type')).toBe('text/event-stream');
    expect(await read(reader)).toBe('retry: 1000\n\n');
    tell?.([entry('a', 7), entry('b', 8), entry('a', 9)]);
    expect(await read(reader)).toBe('event: change\ndata: [["video:a",[7,9]],["video:b",[8]]]\n\n');
    await reader.cancel();
  });

  it('holds names only, each once, for a reader that does not read', async () => {
    const { reader } = await listen();
    await read(reader);
    for (let n = 0; n < 5000; n += 1) tell?.([entry(`v${n % 3}`, n)]);
    const first = await read(reader);
    tell?.([entry('last')]);
    const told = [first, await read(reader)].join('');
    expect(told.length).toBeLessThan(300);
    // So many changes are not told apart.
    expect(told).toContain('["video:v2",[]]');
    expect(told).toContain('video:last');
    await reader.cancel();
  });

  it('ends once, whoever ends it first, and listens no more', async () => {
    const ending = new AbortController();
    const { reader } = await listen(ending);
    await read(reader);
    expect(listening).toBe(1);
    ending.abort();
    expect((await reader.read()).done).toBe(true);
    await reader.cancel();
    expect(listening).toBeLessThanOrEqual(0);
  });

  it('refuses a span that is none', async () => {
    expect((await listen(undefined, '?ago=-1')).answer.status).toBe(422);
    expect((await listen(undefined, '?ago=soon')).answer.status).toBe(422);
  });
});

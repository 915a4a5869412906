import { describe, expect, it } from 'vitest';
import { bodyBytes, jsonBody, jsonIn, NoJson, TooLarge } from './json-body';

/** A request whose body comes in pieces without a length, and tells how many of them were taken. */
function pieces(count: number, bytes: number): { request: Request; taken: () => number } {
  let taken = 0;
  const body = new ReadableStream<Uint8Array>(
    {
      pull(controller) {
        taken += 1;
        controller.enqueue(new Uint8Array(bytes));
        if (taken === count) controller.close();
      },
    },
    { highWaterMark: 0 },
  );
  const init = { method: 'POST', body, duplex: 'half' };
  return { request: new Request('http://127.0.0.1/', init), taken: () => taken };
}

describe('the body of a request', () => {
  it('is read to its bound and no further, whatever its length is said to be', async () => {
    const { request, taken } = pieces(1000, 100_000);
    await expect(bodyBytes(request, 250_000)).rejects.toBeInstanceOf(TooLarge);
    expect(taken()).toBeLessThan(6);
    const short = { method: 'POST', body: 'x', headers: { 'content-length': '999999' } };
    await expect(bodyBytes(new Request('http://127.0.0.1/', short), 10)).rejects.toBeInstanceOf(TooLarge);
  });

  it('is taken as it is below that', async () => {
    expect((await bodyBytes(pieces(3, 10).request, 30)).length).toBe(30);
    const request = new Request('http://127.0.0.1/', { method: 'POST', body: '{"a":[1,"{[\\"]}"]}' });
    expect(await jsonBody(request)).toEqual({ a: [1, '{["]}'] });
  });

  it('is refused where it is no JSON, or lies so deep that a reader would run out of stack', () => {
    expect(() => jsonIn('{', 'It')).toThrow(NoJson);
    expect(() => jsonIn('['.repeat(100_000), 'It')).toThrow('nested too deeply');
    expect(jsonIn(`${'['.repeat(50)}${']'.repeat(50)}`, 'It')).toBeDefined();
  });

  it('brings no names along that change what an object is', () => {
    const read = jsonIn('{"__proto__":{"admin":true},"constructor":{"prototype":{}},"a":1}', 'It');
    expect(read).toEqual({ a: 1 });
    expect(({} as Record<string, unknown>).admin).toBeUndefined();
  });
});

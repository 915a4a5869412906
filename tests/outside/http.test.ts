import { createHash } from 'node:crypto';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { describe, expect, it } from 'vitest';
import { contentDigest } from '@/sites/fieldgate/carry-in-parts';
import { problemText } from '@/sites/json-api';
import { carryByRange } from '@/sites/pipwire/carry-by-range';
import { formFrame } from '@/sites/stallmarket/carry-as-form';
import { sha256InField } from '../../stand-ins/fieldgate/rules';
import { contentRange } from '../../stand-ins/pipwire/rules';
import { Problem, problemDetails } from '../../stand-ins/shared/problem';

describe('problem details by RFC 9457', () => {
  it('say what the example of section 3 says', () => {
    // RFC 9457, section 3, first example; from memory.
    const example = {
      type: 'https://example.com/probs/out-of-credit',
      title: 'You do not have enough credit.',
      detail: 'Your current balance is 30, but that costs 50.',
      instance: '/account/12345/msgs/abc',
      balance: 30,
      accounts: ['/account/12345', '/account/67890'],
    };
    expect(problemText(example)).toBe('Your current balance is 30, but that costs 50.');
    expect(problemText({ title: example.title })).toBe('You do not have enough credit.');
    expect(problemText(undefined)).toBeUndefined();
  });

  it('are given by the stand-ins with the members of section 3.1 and their media type', () => {
    const { type, body } = problemDetails(new Problem(403, 'No credit', 'It costs 50', { balance: 30 }));
    expect(type).toBe('application/problem+json');
    expect(body).toEqual({ type: 'about:blank', title: 'No credit', status: 403, detail: 'It costs 50', balance: 30 });
  });
});

describe('Content-Digest by RFC 9530', () => {
  // RFC 9530, section 2 and appendix B: the digests of {"hello": "world"} with a line end behind it, and without; from
  // memory, and true by computation.
  const WITH_LINE_END = 'sha-256=:RK/0qy18MlBSVnWgjwz6lZEWjP/lF5HF9bvEF8FabDg=:';
  const WITHOUT = 'sha-256=:X48E9qOokqqrvdts8nOJRJN3OWDUoyWxBf7kbu9DBPE=:';

  it('is what the examples say, on the side that sends', async () => {
    expect(await contentDigest(Readable.from([Buffer.from('{"hello": "world"}\n')]))).toBe(WITH_LINE_END);
    expect(await contentDigest(Readable.from([Buffer.from('{"hello": "world"}')]))).toBe(WITHOUT);
  });

  it('is read out of a field with several algorithms, on the side that checks', () => {
    const wanted = createHash('sha256').update('{"hello": "world"}\n').digest('base64');
    expect(sha256InField(WITH_LINE_END)).toBe(wanted);
    expect(
      sha256InField(
        `sha-512=:WZDPaVn/7XgHaAy8pmojAkGWoRx2UFChF41A2svX+TaPm+AbwAgBWnrIiYllu7BNNyealdVLvRwEmTHWXvJwew==:, ${WITH_LINE_END}`,
      ),
    ).toBe(wanted);
    expect(sha256InField('md5=:Q2h1Y2sgSW4=:')).toBeUndefined();
    expect(sha256InField(undefined)).toBeUndefined();
  });
});

describe('Content-Range by RFC 9110, sections 14.4 and 14.5', () => {
  it('reads the range of the example, and takes no other form for a partial PUT', () => {
    // Section 14.4: "Content-Range: bytes 42-1233/1234"; the other two examples name no range or no length.
    expect(contentRange('bytes 42-1233/1234')).toEqual({ first: 42, last: 1233, size: 1234 });
    expect(contentRange('bytes 42-1233/*')).toBeUndefined();
    expect(contentRange('bytes */1234')).toBeUndefined();
  });

  it('is written as in the example, for the part that is still to come', async () => {
    const bytes = Buffer.alloc(1234, 7).fill(9, 42);
    const server = http.createServer();
    const asked = new Promise<{ headers: http.IncomingHttpHeaders; body: Buffer }>((resolve) => {
      server.once('request', async (request: http.IncomingMessage, answer: http.ServerResponse) => {
        const body = await buffer(request);
        resolve({ headers: request.headers, body });
        answer.writeHead(200).end();
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    let there = 42;
    await carryByRange(
      { accessToken: async () => 'token', heard: async () => undefined },
      `http://127.0.0.1:${port}/clip`,
      { fileName: 'a.mp4', size: 1234, open: (from) => Readable.from([bytes.subarray(from)]) },
      async () => {
        const now = there;
        there = 1234;
        return now;
      },
      () => undefined,
      new AbortController().signal,
      () => undefined,
    );
    const { headers, body } = await asked;
    server.close();
    expect(headers['content-range']).toBe('bytes 42-1233/1234');
    expect(headers['content-length']).toBe('1192');
    expect(body).toEqual(Buffer.alloc(1192, 9));
  });

  it('refuses a range that is invalid by section 14.4: the last before the first, or not below the length', () => {
    expect(contentRange('bytes 10-9/20')).toBeUndefined();
    expect(contentRange('bytes 0-20/20')).toBeUndefined();
    expect(contentRange('bytes 0-19/20')).toEqual({ first: 0, last: 19, size: 20 });
    expect(contentRange('lines 0-1/2')).toBeUndefined();
  });
});

describe('multipart/form-data by RFC 7578', () => {
  const form = (name: string, bytes: Uint8Array) => {
    const { boundary, head, tail } = formFrame('clip', name, 'video/mp4');
    const body = Buffer.concat([head, bytes, tail]);
    return { body, text: body.toString('latin1'), type: `multipart/form-data; boundary=${boundary}`, boundary };
  };

  it('has the parts that sections 4.1 to 4.4 ask for', () => {
    const { text, boundary } = form('a.mp4', Buffer.from('xyz'));
    expect(text).toBe(
      `--${boundary}\r\nContent-Disposition: form-data; name="clip"; filename="a.mp4"\r\nContent-Type: video/mp4\r\n\r\nxyz\r\n--${boundary}--\r\n`,
    );
    // RFC 2046, section 5.1.1: a boundary has at most 70 characters.
    expect(boundary.length).toBeLessThanOrEqual(70);
  });

  it.each(['keel part two.mp4', 'quote".mp4', 'Öl und Pech 🛶.mp4'])(
    'is read by Node’s own parser of forms: %s',
    async (name) => {
      const bytes = new Uint8Array([0, 13, 10, 45, 45, 255, 7]);
      const { body, type } = form(name, bytes);
      const read = await new Response(new Uint8Array(body), { headers: { 'content-type': type } }).formData();
      const file = read.get('clip') as File;
      expect(file.name).toBe(name);
      expect(new Uint8Array(await file.arrayBuffer())).toEqual(bytes);
    },
  );
});

import { createReadStream, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { streamBody } from './stream-body';

const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'kettle-body-')), 'file');
writeFileSync(file, Buffer.alloc(3_000_000, 7));

describe('a file as the body of an answer', () => {
  it('comes whole', async () => {
    const bytes = await new Response(streamBody(createReadStream(file))).arrayBuffer();
    expect(bytes.byteLength).toBe(3_000_000);
  });

  it('that is not there is an error of the body, and ends nothing else', async () => {
    const body = streamBody(createReadStream(`${file}-not`));
    await new Promise((resolve) => setTimeout(resolve, 50));
    await expect(new Response(body).arrayBuffer()).rejects.toMatchObject({ code: 'ENOENT' });
  });

  it('is closed where its reader goes away, in the middle or at the very end, and nothing is thrown', async () => {
    const thrown: unknown[] = [];
    const note = (error: unknown) => thrown.push(error);
    process.on('uncaughtException', note);
    for (let reads = 0; reads < 60; reads += 1) {
      const source = createReadStream(file);
      const reader = streamBody(source).getReader();
      for (let n = 0; n < reads; n += 1) await reader.read();
      await reader.cancel();
      await expect.poll(() => source.closed).toBe(true);
    }
    process.off('uncaughtException', note);
    expect(thrown).toEqual([]);
  });
});

import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { Upload } from '@tus/server';
import { describe, expect, it } from 'vitest';
import { takeHome } from '../settings';
import { ArrivingStore } from './arriving';

takeHome(mkdtempSync(path.join(os.tmpdir(), 'kettle-arriving-')));
const bytes = randomBytes(500_000);
const digest = createHash('sha256').update(bytes).digest('hex');
const part = (from: number, to: number) => Readable.from([bytes.subarray(from, to)]);

async function begun(id: string): Promise<ArrivingStore> {
  const store = new ArrivingStore();
  await store.create(new Upload({ id, size: bytes.length, offset: 0 }));
  return store;
}

describe('the digest of a transfer', () => {
  it('is there when its last byte is, where all came to one process', async () => {
    const store = await begun('one');
    expect(await store.write(part(0, 200_000), 'one', 0)).toBe(200_000);
    expect(await store.write(part(200_000, 500_000), 'one', 200_000)).toBe(500_000);
    expect(await store.digestOf('one', bytes.length)).toBe(digest);
    expect(await store.digestOf('one', bytes.length)).toBeUndefined();
  });

  it('is not made up where it went on in another process, broke, or is not over', async () => {
    const first = await begun('two');
    await first.write(part(0, 200_000), 'two', 0);
    const second = new ArrivingStore();
    await second.write(part(200_000, 500_000), 'two', 200_000);
    expect(await second.digestOf('two', bytes.length)).toBeUndefined();
    expect(await first.digestOf('two', bytes.length)).toBeUndefined();

    const third = await begun('three');
    const breaks = Readable.from(
      (async function* () {
        yield bytes.subarray(0, 100_000);
        throw new Error('the line broke');
      })(),
    );
    await expect(third.write(breaks, 'three', 0)).rejects.toThrow('the line broke');
    await third.write(part(100_000, 500_000), 'three', 100_000);
    expect(await third.digestOf('three', bytes.length)).toBeUndefined();
  });
});

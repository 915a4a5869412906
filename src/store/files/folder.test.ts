import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { beforeEach, describe, expect, it } from 'vitest';
import type { FileStore } from './files';
import { folderStore } from './folder';

let root: string;
let store: FileStore;
beforeEach(() => {
  root = mkdtempSync(path.join(os.tmpdir(), 'kettle-files-'));
  store = folderStore(root);
});
const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
const names = () => readdirSync(path.join(root, 'cuts'));

describe('the files in a folder', () => {
  it('are kept whole or not at all', async () => {
    const bytes = randomBytes(300_000);
    expect(await store.put('cuts/a', Readable.from([bytes]))).toEqual({ size: 300_000, digest: sha256(bytes) });
    const breaks = Readable.from(
      (async function* () {
        yield bytes;
        throw new Error('the line broke');
      })(),
    );
    await expect(store.put('cuts/b', breaks)).rejects.toThrow('the line broke');
    expect(names()).toEqual(['a']);
    expect(await buffer(store.open('cuts/a', 10, 19))).toEqual(bytes.subarray(10, 20));
  });

  it('of one key may be put twice at once: one whole file stays', async () => {
    const [one, two] = [Buffer.alloc(2_000_000, 1), Buffer.alloc(2_000_000, 2)];
    await Promise.all([store.put('cuts/a', Readable.from([one])), store.put('cuts/a', Readable.from([two]))]);
    expect([sha256(one), sha256(two)]).toContain(sha256(readFileSync(path.join(root, 'cuts/a'))));
    expect(names()).toEqual(['a']);
  });

  it('of this machine are taken without a copy where the disk can do that', async () => {
    const file = path.join(root, 'export.mp4');
    writeFileSync(file, randomBytes(100_000));
    const { digest } = await store.adopt('cuts/a', file);
    const taken = statSync(path.join(root, 'cuts/a'));
    expect(taken.size).toBe(100_000);
    // A clone has a name and blocks of its own; a second name has the same inode. Only a copy says what it read.
    if (taken.ino === statSync(file).ino) expect(digest).toBeUndefined();
    await store.remove('cuts/a');
    expect(statSync(file).size).toBe(100_000);
  });

  it('that never became whole go after a day, and no others', async () => {
    await store.put('cuts/whole', Readable.from(['x']));
    for (const [name, hours] of [
      ['cuts/old.1.part', 30],
      ['cuts/fresh.2.part', 1],
    ] as const) {
      writeFileSync(path.join(root, name), 'half');
      const at = new Date(Date.now() - hours * 3_600_000);
      utimesSync(path.join(root, name), at, at);
    }
    await store.removeHalf();
    expect(names().sort()).toEqual(['fresh.2.part', 'whole']);
  });

  it.each(['../outside', 'cuts/../../etc/passwd', '/etc/passwd', 'cuts/a b', ''])(
    'have no key like %j',
    async (key) => {
      await expect(store.size(key)).rejects.toThrow('no file key');
    },
  );
});

import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { missingBytes, topBoxes } from './boxes';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-boxes-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** A box (ISO/IEC 14496-12, 4.2): 32 bits of size, four letters, the content. */
function box(type: string, content: number, says = content + 8): Buffer {
  const bytes = Buffer.alloc(content + 8);
  bytes.writeUInt32BE(says, 0);
  bytes.write(type, 4, 'latin1');
  return bytes;
}

/** A box whose size follows in 64 bits, because the short one is 1. */
function largeBox(type: string, content: number): Buffer {
  const bytes = Buffer.alloc(content + 16);
  bytes.writeUInt32BE(1, 0);
  bytes.write(type, 4, 'latin1');
  bytes.writeBigUInt64BE(BigInt(content + 16), 8);
  return bytes;
}

async function file(...parts: Buffer[]): Promise<{ at: string; size: number }> {
  const bytes = Buffer.concat(parts);
  const at = path.join(folder, `${Math.random()}.mp4`);
  await writeFile(at, bytes);
  return { at, size: bytes.length };
}

describe('the boxes of a file', () => {
  it('are found one after the other, with short and long sizes', async () => {
    const { at, size } = await file(box('ftyp', 16), largeBox('mdat', 40), box('moov', 8));
    expect(await topBoxes(at)).toEqual([
      { type: 'ftyp', start: 0, end: 24 },
      { type: 'mdat', start: 24, end: 80 },
      { type: 'moov', start: 80, end: 96 },
    ]);
    expect(missingBytes(await topBoxes(at), size)).toBe(0);
  });

  it('go on to the end of the file where their size is 0', async () => {
    const { at, size } = await file(box('ftyp', 16), box('mdat', 100, 0));
    expect((await topBoxes(at)).at(-1)).toEqual({ type: 'mdat', start: 24, end: 132 });
    expect(missingBytes(await topBoxes(at), size)).toBe(0);
  });

  it('tell how much is missing where the end was cut off', async () => {
    const { at, size } = await file(box('ftyp', 16), box('mdat', 100, 5108));
    expect(missingBytes(await topBoxes(at), size)).toBe(5000);
  });

  it('end where a size is none, and are none in an empty file', async () => {
    const { at } = await file(box('ftyp', 16), box('oops', 0, 4), box('moov', 8));
    expect((await topBoxes(at)).map(({ type }) => type)).toEqual(['ftyp']);
    const empty = await file();
    expect(await topBoxes(empty.at)).toEqual([]);
    expect(missingBytes(await topBoxes(empty.at), 0)).toBe(0);
  });
});

import { describe, expect, it } from 'vitest';
import { chaptersInFile, checkCover, completeShape, newWorkShape, sha256InField, workShape } from './rules';

describe('what Fieldgate takes', () => {
  it('counts headlines, texts and keywords in code points', async () => {
    expect(await workShape.isValid({ headline: '🛶'.repeat(110) })).toBe(true);
    expect(await workShape.isValid({ headline: '🛶'.repeat(111) })).toBe(false);
    expect(await workShape.isValid({ about: 'ö'.repeat(6000) })).toBe(true);
    expect(await workShape.isValid({ about: 'ö'.repeat(6001) })).toBe(false);
    expect(await workShape.isValid({ keywords: Array.from({ length: 20 }, (_, n) => `k${n}`) })).toBe(true);
    expect(await workShape.isValid({ keywords: Array.from({ length: 21 }, (_, n) => `k${n}`) })).toBe(false);
    expect(await workShape.isValid({ keywords: ['🛶'.repeat(31)] })).toBe(false);
  });

  it('knows its own audiences and fields, and no others', async () => {
    for (const audience of ['public', 'address', 'me']) expect(await workShape.isValid({ audience })).toBe(true);
    expect(await workShape.isValid({ audience: 'everyone' })).toBe(false);
    expect(await workShape.isValid({ title: 'elsewhere' }, { strict: true })).toBe(false);
    expect(await workShape.isValid({ credits: [{ role: 'Camera', name: 'Isa Brandt' }] })).toBe(true);
    expect(await workShape.isValid({ credits: [{ role: 'Camera' }] })).toBe(false);
  });

  it('takes files up to 20 GiB, and a list of parts that is not empty', async () => {
    const bytes = 20 * 1024 ** 3;
    expect(await newWorkShape.isValid({ fileName: 'a.mov', bytes })).toBe(true);
    expect(await newWorkShape.isValid({ fileName: 'a.mov', bytes: bytes + 1 })).toBe(false);
    expect(await completeShape.isValid({ parts: [{ number: 1, digest: 'x' }] })).toBe(true);
    expect(await completeShape.isValid({ parts: [] })).toBe(false);
    expect(await completeShape.isValid({ parts: [{ number: 0, digest: 'x' }] })).toBe(false);
  });

  it('takes covers of the work’s own shape, a pixel of rounding allowed', () => {
    const check = checkCover({ width: 1920, height: 800 });
    expect(() => check({ format: 'png', width: 1280, height: 533 }, 1000)).not.toThrow();
    expect(() => check({ format: 'png', width: 1280, height: 720 }, 1000)).toThrow(/1920×800/);
    expect(() => check({ format: 'webp', width: 1920, height: 800 }, 1000)).toThrow(/JPEG and PNG/);
    expect(() => check({ format: 'jpeg', width: 1920, height: 800 }, 8_000_001)).toThrow(/8000000/);
    expect(() => checkCover(undefined)({ format: 'jpeg', width: 10, height: 900 }, 10)).not.toThrow();
  });
});

describe('chapters of a WebVTT file', () => {
  it('are read with and without hours, tags and escapes undone', () => {
    const file =
      'WEBVTT\n\n00:00.000 --> 00:12.500\nFilling\n\n1\n01:00:05.250 --> 01:00:06.000 line:1\n<b>A &amp; B</b>\n';
    expect(chaptersInFile(file)).toEqual([
      { seconds: 0, title: 'Filling' },
      // Two digits or more for hours (W3C WebVTT, section 4.1).
      { seconds: 3605.25, title: 'A & B' },
    ]);
    expect(chaptersInFile(undefined)).toEqual([]);
  });
});

describe('a digest field', () => {
  // RFC 9530, appendix B.1: Content-Digest of the content {"hello": "world"} with its line end.
  const SHA_256 = 'RK/0qy18MlBSVnWgjwz6lZEWjP/lF5HF9bvEF8FabDg=';

  it('is found alone, or beside another algorithm', () => {
    expect(sha256InField(`sha-256=:${SHA_256}:`)).toBe(SHA_256);
    expect(sha256InField(`sha-512=:abc=:,sha-256=:${SHA_256}:`)).toBe(SHA_256);
  });

  it('is none where it is of another form', () => {
    for (const field of [undefined, '', `sha-256=${SHA_256}`, `sha-512=:${SHA_256}:`, `xsha-256=:${SHA_256}:`]) {
      expect(sha256InField(field)).toBeUndefined();
    }
  });
});

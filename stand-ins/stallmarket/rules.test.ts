import { describe, expect, it } from 'vitest';
import { Problem } from '../shared/problem';
import { CATALOGUE } from './people';
import { checkPicture, checkProducts, listingShape, newClipShape, stallErrors } from './rules';

describe('what Stallmarket takes', () => {
  it('counts titles and texts in bytes of UTF-8', async () => {
    expect(await listingShape.isValid({ title: 'ö'.repeat(37) })).toBe(true);
    expect(await listingShape.isValid({ title: 'ö'.repeat(38) })).toBe(false);
    expect(await listingShape.isValid({ title: '' })).toBe(false);
    expect(await listingShape.isValid({ text: '🛶'.repeat(225) })).toBe(true);
    expect(await listingShape.isValid({ text: `${'🛶'.repeat(225)}.` })).toBe(false);
  });

  it('takes no links', async () => {
    for (const link of ['see https://yard.example', 'HTTP://yard.example', 'www.yard.example']) {
      expect(await listingShape.isValid({ text: link })).toBe(false);
    }
    expect(await listingShape.isValid({ text: 'yard.example is not one' })).toBe(true);
  });

  it('takes up to ten products, all in its catalogue, however they are spaced', async () => {
    const [known = ''] = Object.keys(CATALOGUE);
    expect(() => checkProducts([known, `${known.slice(0, 1)} ${known.slice(1)}`])).not.toThrow();
    expect(() => checkProducts(undefined)).not.toThrow();
    expect(() => checkProducts(['96385074'])).toThrow(/96385074/);
    expect(await listingShape.isValid({ products: Array.from({ length: 9 }, () => known) })).toBe(false);
  });

  it('has no product named toString, or after anything else that objects have', () => {
    for (const name of ['toString', 'constructor', '__proto__', 'hasOwnProperty']) {
      expect(() => checkProducts([name])).toThrow(/no product/);
    }
  });

  it('takes MP4 and MOV files up to four gigabytes', async () => {
    const clip = (file: string, bytes: number) => newClipShape.isValid({ ref: 'r', file, bytes });
    expect(await clip('a.mov', 4_000_000_000)).toBe(true);
    expect(await clip('a.mp4', 4_000_000_001)).toBe(false);
    expect(await clip('a.webm', 10)).toBe(false);
  });

  it('takes pictures of 16:9 from 800 wide, at most two megabytes', () => {
    const wide = { format: 'png', width: 1366, height: 768 };
    expect(() => checkPicture(wide, 2_000_000)).not.toThrow();
    expect(() => checkPicture(wide, 2_000_001)).toThrow(/at most/);
    expect(() => checkPicture({ ...wide, width: 640, height: 360 }, 10)).toThrow(/800/);
    expect(() => checkPicture({ ...wide, width: 1000 }, 10)).toThrow(/16:9/);
    expect(() => checkPicture({ ...wide, format: 'webp' }, 10)).toThrow(/JPEG and PNG/);
  });

  it('words errors its own way, at their field', () => {
    const { body } = stallErrors(new Problem(422, 'Not taken', 'title has at most 75 bytes', { field: 'title' }));
    const error = { code: 'NOT-TAKEN', message: 'title has at most 75 bytes', on: 'title' };
    expect(body).toEqual({ ok: false, errors: [error] });
  });
});

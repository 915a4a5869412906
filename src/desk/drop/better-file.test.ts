import { describe, expect, it } from 'vitest';
import { linksLeft } from '@/store/drop/shape';
import { goesBehindLink } from './better-file';

const SWAPS = { swapsFiles: true };
const held = {
  snag: { at: 'held' as const, kind: 'file' as const, what: 'w', remedy: 'r' },
  ...{ siteVideoId: 'v', link: 'https://site.example/v', former: undefined, siteOpensAt: undefined },
};

describe('a new file of what is held', () => {
  it('goes behind the link that is there where its site can swap files, and was told no time', () => {
    expect(goesBehindLink(held, SWAPS)).toBe(true);
    expect(goesBehindLink(held, {})).toBe(false);
    // That site would open the file from before at its time.
    expect(goesBehindLink({ ...held, siteOpensAt: new Date() }, SWAPS)).toBe(false);
    expect(goesBehindLink({ ...held, siteVideoId: undefined }, SWAPS)).toBe(false);
    expect(goesBehindLink({ ...held, snag: { ...held.snag, at: 'settling' } }, SWAPS)).toBe(false);
    expect(goesBehindLink({ ...held, snag: { ...held.snag, kind: 'rights' } }, SWAPS)).toBe(false);
    const former = { siteVideoId: 'u', link: 'u', openedTo: 'everyone', ends: 'swap' } as never;
    expect(goesBehindLink({ ...held, former }, SWAPS)).toBe(false);
  });
});

describe('links that a drop leaves', () => {
  it('are all that led to it, each once', () => {
    expect(linksLeft({ link: undefined, formerLinks: undefined })).toBeUndefined();
    expect(linksLeft({ link: 'b', formerLinks: ['a'] })).toEqual(['a', 'b']);
    expect(linksLeft({ link: 'a', formerLinks: ['a', 'b'] })).toEqual(['a', 'b']);
    expect(linksLeft({ link: undefined, formerLinks: ['a'] })).toEqual(['a']);
  });
});

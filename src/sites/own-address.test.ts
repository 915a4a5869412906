import { describe, expect, it } from 'vitest';
import { ownAddress } from './own-address';

// RFC 6454, section 4: an origin is scheme, host and port; RFC 3986, section 5 for what is relative.
describe('where a token may go', () => {
  it.each([
    ['http://site.example:81/files/1', 'http://site.example:81/files/1'],
    ['/files/2?x=1', 'http://site.example:81/files/2?x=1'],
    ['files/3', 'http://site.example:81/files/3'],
  ])('the site’s own %s', (named, address) => {
    expect(ownAddress('http://site.example:81', named)).toBe(address);
  });

  it.each([
    'http://site.example/1',
    'https://site.example:81/1',
    '//evil.example/1',
    'http://site.example:81@evil.example/',
  ])('not %s', (named) => {
    expect(() => ownAddress('http://site.example:81', named)).toThrow('not its own address');
  });

  it('nowhere, where nothing was named', () => {
    expect(() => ownAddress('http://site.example', '')).toThrow('forgotten');
  });
});

import { describe, expect, it } from 'vitest';
import { hmacSha256, signedFields } from '@/desk/notices/signature';

const hex = (text: string) => Buffer.from(text, 'hex');

// RFC 4231, section 4: test cases 1 to 4, 6 and 7 for HMAC-SHA-256 (from memory; case 5 is cut to 128 bits).
describe('the signature of webhooks', () => {
  it.each([
    ['1', hex('0b'.repeat(20)), 'Hi There', 'b0344c61d8db38535ca8afceaf0bf12b881dc200c9833da726e9376c2e32cff7'],
    ['2', 'Jefe', 'what do ya want for nothing?', '5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843'],
    [
      '3',
      hex('aa'.repeat(20)),
      hex('dd'.repeat(50)),
      '773ea91e36800e46854db8ebd09181a72959098b3ef8c122d9635514ced565fe',
    ],
    [
      '4',
      hex('0102030405060708090a0b0c0d0e0f10111213141516171819'),
      hex('cd'.repeat(50)),
      '82558a389a443c0ea4cc819899f2083a85f0faa3e578f8077a2e3ff46729665b',
    ],
    [
      '6',
      hex('aa'.repeat(131)),
      'Test Using Larger Than Block-Size Key - Hash Key First',
      '60e431591ee0b67f0d8a26aacbf5b77f8e0bc6213728c5140546040f0ee37f54',
    ],
    [
      '7',
      hex('aa'.repeat(131)),
      'This is a test using a larger than block-size key and a larger than block-size data. The key needs to be hashed before being used by the HMAC algorithm.',
      '9b09ffa71b942fcb27635fbcd5b0e944bfdc63644f0713938a7f51535c3a35e2',
    ],
  ])('is HMAC-SHA-256: case %s of RFC 4231', (_, key, data, expected) => {
    expect(hmacSha256(key, data)).toBe(expected);
  });

  it('goes over the time stamp and the body, so that neither can be changed', () => {
    const of = (at: number, body: string) => signedFields('Jefe', at, body)['kettle-signature'];
    // OpenSSL 3.0: printf '1.{}' | openssl dgst -sha256 -hmac Jefe
    expect(of(1, '{}')).toBe('sha256=dc7943cccf20f64327d263db5e2aca27c2b8175e8e6e7ea04f482091bf456b0f');
    expect(new Set([of(1, '{}'), of(2, '{}'), of(1, '{ }')]).size).toBe(3);
  });
});

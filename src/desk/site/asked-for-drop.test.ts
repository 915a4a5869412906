import { describe, expect, it } from 'vitest';
import { requestFor } from './asked-for-drop';

const asked = (address: string) => ({ method: 'PUT', address, status: 200, milliseconds: 12 });

describe('what a site was asked', () => {
  it('is told by what it was for, without ids and secrets', () => {
    const address = 'http://127.0.0.1:7310/api/videos/kT4x9QwzL2s/captions/en?token=s3cret&x=1';
    expect(requestFor('set it', asked(address))).toEqual({
      method: 'PUT',
      purpose: 'set it · /api/videos/…/captions/en',
      status: 200,
      milliseconds: 12,
    });
  });

  it('has room in its column, however long the address is', () => {
    const long = `http://127.0.0.1/${Array.from({ length: 60 }, () => 'parts').join('/')}`;
    expect(requestFor('bring it', asked(long)).purpose.length).toBeLessThanOrEqual(100);
  });
});

import { describe, expect, it } from 'vitest';
import { toldAllowances } from './told-allowance';

const told = (fields: Record<string, string>, status = 200) =>
  toldAllowances({ status, field: (name) => fields[name] });

// Forms of the fields as in the examples of draft-ietf-httpapi-ratelimit-headers, from memory.
describe('what an answer tells of the requests that are left', () => {
  it('is read from RateLimit, with the whole from RateLimit-Policy', () => {
    const fields = { 'ratelimit-policy': '"burst";q=100;w=60,"daily";q=1000;w=86400', ratelimit: '"burst";r=50;t=30' };
    expect(told(fields)).toEqual([{ policy: 'burst', remaining: 50, quota: 100, seconds: 30 }]);
  });

  it('lasts as long as the window where it does not say how long', () => {
    const fields = { 'ratelimit-policy': '"hour";q=10;w=3600', ratelimit: '"hour";r=0' };
    expect(told(fields)).toEqual([{ policy: 'hour', remaining: 0, quota: 10, seconds: 3600 }]);
  });

  it.each([
    [{}],
    [{ ratelimit: 'no list; at all;;' }],
    [{ ratelimit: '"hour"' }],
    [{ ratelimit: '"hour";r=-1;t=5' }],
    [{ ratelimit: '"hour";r=1.5;t=5' }],
    [{ ratelimit: '("hour");r=1;t=5' }],
  ])('is nothing where it cannot be understood: %j', (fields) => {
    expect(told(fields as Record<string, string>)).toEqual([]);
  });

  it('never stops an account for longer than a day', () => {
    expect(told({ ratelimit: '"slip";r=0;t=999999999' })[0]?.seconds).toBe(86_400);
  });

  // RFC 6585, section 4: a 429 may say how long to wait before the next request.
  it('is that nothing is left where it says 429 and when to come back', () => {
    expect(told({ 'retry-after': '12' }, 429)).toEqual([
      { policy: 'too many requests', remaining: 0, quota: undefined, seconds: 12 },
    ]);
    expect(told({}, 429)).toEqual([]);
    expect(told({ 'retry-after': '12' }, 503)).toEqual([]);
  });
});

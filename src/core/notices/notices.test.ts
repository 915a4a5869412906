import { describe, expect, it } from 'vitest';
import { type NoticeSettings, nextTell, PLAIN_NOTICES, tellAt, tells } from './notices';

const berlin = 'Europe/Berlin';
const night = { from: 22 * 60, to: 7 * 60, zone: berlin };
const settings = (fields: Partial<NoticeSettings>): NoticeSettings => ({ ...PLAIN_NOTICES, ...fields });
const at = (text: string) => new Date(text);

describe('whether a way tells', () => {
  const on = settings({ email: { ...PLAIN_NOTICES.email, on: true }, silent: ['c2'] });
  it('goes by the way, the kind and the channel', () => {
    expect(tells(PLAIN_NOTICES, 'email', { kind: 'live', channelId: 'c1' })).toBe(false);
    expect(tells(on, 'email', { kind: 'live', channelId: 'c1' })).toBe(true);
    expect(tells(on, 'email', { kind: 'live', channelId: 'c2' })).toBe(false);
    expect(tells(on, 'webhook', { kind: 'live', channelId: 'c1' })).toBe(false);
    const less = settings({ ...on, kinds: { ...on.kinds, email: ['missed'] } });
    expect(tells(less, 'email', { kind: 'live', channelId: 'c1' })).toBe(false);
  });
});

describe('when a way tells', () => {
  it('is at once, but not in quiet hours, also over midnight', () => {
    const quiet = settings({ quiet: night });
    expect(tellAt(at('2026-11-27T12:00:30Z'), quiet, 'email')).toEqual(at('2026-11-27T12:00:30Z'));
    expect(tellAt(at('2026-11-27T23:10:30Z'), quiet, 'email')).toEqual(at('2026-11-28T06:00:00Z'));
    expect(tellAt(at('2026-11-27T23:10:30Z'), quiet, 'browser')).toEqual(at('2026-11-28T06:00:00Z'));
    expect(tellAt(at('2026-11-27T23:10:30Z'), quiet, 'webhook')).toEqual(at('2026-11-27T23:10:30Z'));
  });

  it('keeps to the clock of the zone where clocks change in the night (IANA: Berlin, 25 October 2026)', () => {
    expect(tellAt(at('2026-10-24T23:00:00Z'), settings({ quiet: night }), 'email')).toEqual(at('2026-10-25T06:00:00Z'));
    expect(tellAt(at('2026-03-28T23:00:00Z'), settings({ quiet: night }), 'email')).toEqual(at('2026-03-29T05:00:00Z'));
  });

  it('is with the mail of the hour or of the day, the next one after it happened', () => {
    expect(tellAt(at('2026-11-27T12:00:00Z'), settings({ digest: 'hour' }), 'email')).toEqual(
      at('2026-11-27T13:00:00Z'),
    );
    const daily = settings({ digest: 'day', digestAt: { minute: 8 * 60, zone: berlin } });
    expect(tellAt(at('2026-11-27T06:59:30Z'), daily, 'email')).toEqual(at('2026-11-27T07:00:00Z'));
    expect(tellAt(at('2026-11-27T07:01:00Z'), daily, 'email')).toEqual(at('2026-11-28T07:00:00Z'));
    expect(tellAt(at('2026-11-27T07:01:00Z'), daily, 'browser')).toEqual(at('2026-11-27T07:01:00Z'));
    expect(tellAt(at('2026-11-27T07:01:00Z'), settings({ ...daily, quiet: night }), 'email')).toEqual(
      at('2026-11-28T07:00:00Z'),
    );
  });

  it('is tried again later and later, as late as the other side asks, and not for ever', () => {
    expect(nextTell(1)).toBe(10);
    expect(nextTell(1, 90)).toBe(90);
    expect(nextTell(3, 90)).toBe(120);
    const all = Array.from({ length: 20 }, (_, index) => nextTell(index + 1));
    expect(all.filter((each) => each !== undefined).reduce((sum, each) => sum + each, 0)).toBeGreaterThan(60 * 3600);
    expect(all.at(-1)).toBeUndefined();
  });
});

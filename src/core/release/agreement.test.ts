import { describe, expect, it } from 'vitest';
import {
  AGREED_TO_NOTHING,
  agreedAfterChange,
  agreedByChanges,
  agreedBySending,
  agreedByTime,
  isAgreed,
  type ReleaseValues,
  releaseThere,
} from './agreement';

const now = new Date('2026-11-27T10:00:00Z');
const at = (wall: string) => ({ wall, zone: 'UTC' });
const [OVER, TO_COME] = [at('2026-11-27T09:59:59'), at('2026-11-27T10:00:01')];
const there = (fields: Partial<ReleaseValues>) =>
  releaseThere({ privacy: 'everyone', release: 'by itself', opensAt: null, ...fields }, true);
const timed = (opensAt: ReleaseValues['opensAt']) => there({ release: 'at a time', opensAt });

describe('how a video opens on a channel', () => {
  it('is at its time where the site has no first showings, and in no way where nobody else sees it', () => {
    const showing: ReleaseValues = { privacy: 'everyone', release: 'first showing', opensAt: TO_COME };
    expect(releaseThere(showing, false)).toMatchObject({ waitsFor: 'at a time', opensAt: TO_COME });
    expect(releaseThere(showing, true).waitsFor).toBe('first showing');
    expect(there({ ...showing, privacy: 'private' })).toMatchObject({ waitsFor: undefined, opensAt: undefined });
    // A time that was left there from another way counts for nothing.
    expect(there({ release: 'on my word', opensAt: TO_COME }).opensAt).toBeUndefined();
  });

  it('is another agreement by its way, its moment, which of two that is, and to whom it opens', () => {
    const all = [
      there({}),
      there({ privacy: 'link' }),
      there({ release: 'together' }),
      timed(OVER),
      timed(TO_COME),
      timed({ ...TO_COME, zone: 'Europe/Berlin' }),
      timed({ ...TO_COME, which: 'second' }),
    ];
    expect(new Set(all.map(({ agreement }) => agreement)).size).toBe(all.length);
  });
});

describe('what a person agrees to', () => {
  it('by sending a video is how it opens, but for a moment that is over', () => {
    for (const release of [there({}), there({ release: 'together' }), timed(TO_COME)]) {
      expect(agreedBySending(release, now)).toEqual({ to: release.agreement, by: 'sending' });
    }
    expect(agreedBySending(timed(OVER), now)).toEqual(AGREED_TO_NOTHING);
  });

  it('by setting a release is a time that is to come, and nothing else', () => {
    expect(agreedByTime(timed(TO_COME), now)).toEqual({ to: timed(TO_COME).agreement, by: 'time' });
    for (const release of [there({}), there({ release: 'together' }), timed(OVER), timed(at('2026-11-27T10:00:00'))]) {
      expect(isAgreed(agreedByTime(release, now), release)).toBe(false);
    }
  });

  it('by sending changes is that it opens by itself, or at a time to come; else what was agreed to before stays', () => {
    const before = { to: 'before', by: 'sending' } as const;
    expect(agreedByChanges(there({}), before, now)).toEqual({ to: there({}).agreement, by: 'changes' });
    expect(agreedByChanges(timed(TO_COME), before, now)?.by).toBe('changes');
    for (const release of [timed(OVER), there({ release: 'together' }), there({ release: 'on my word' })]) {
      expect(agreedByChanges(release, before, now)).toBe(before);
      expect(agreedByChanges(release, undefined, now)).toBeUndefined();
    }
  });

  it('holds after a change that opens it in the same way to nobody more, and ends with any other', () => {
    const together = (privacy: ReleaseValues['privacy']) => there({ release: 'together', privacy });
    const sent = agreedBySending(together('link'), now);
    expect(agreedAfterChange(together('link'), sent, now)).toEqual(sent);
    expect(agreedAfterChange(together('password'), sent, now)).toEqual({
      to: together('password').agreement,
      by: 'sending',
    });
    expect(agreedAfterChange(together('everyone'), sent, now)).toEqual(AGREED_TO_NOTHING);
    expect(agreedAfterChange(timed(OVER), sent, now)).toEqual(AGREED_TO_NOTHING);
    expect(agreedAfterChange(timed(TO_COME), sent, now).by).toBe('time');
    expect(agreedAfterChange(together('link'), undefined, now)).toEqual(AGREED_TO_NOTHING);
    // Away and back: what was chosen in between has ended it.
    const back = agreedAfterChange(together('link'), agreedAfterChange(there({}), sent, now), now);
    expect(isAgreed(back, together('link'))).toBe(false);
  });

  it('is not known of what was sent before that was kept', () => {
    expect(isAgreed(undefined, there({}))).toBe(true);
  });
});

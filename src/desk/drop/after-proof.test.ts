import { describe, expect, it } from 'vitest';
import { AGREED_TO_NOTHING, releaseThere } from '@/core/release';
import { afterProof } from './after-proof';
import type { MeantWords } from './meant';

type Values = Parameters<typeof releaseThere>[0];
const meant = (fields: Partial<Values> = {}) => {
  const release = releaseThere({ privacy: 'everyone', release: 'by itself', opensAt: null, ...fields }, false);
  return { ...release, opensAlone: !release.waitsFor } as MeantWords;
};
const BY_ITSELF = meant();
type Proofed = Parameters<typeof afterProof>[1];
const drop = (fields: Partial<Proofed> = {}): Proofed => ({
  ...{ confirmedTo: undefined, openAsked: false, releasedFor: undefined },
  agreed: { to: BY_ITSELF.agreement, by: 'sending' },
  ...fields,
});

describe('what becomes of a drop that was proofed', () => {
  it('is that it opens where it was sent to do so, or where nobody more sees it by that', () => {
    expect(afterProof(BY_ITSELF, drop(), false)).toBe('goes on');
    expect(afterProof(BY_ITSELF, drop({ agreed: undefined }), false)).toBe('goes on');
    const unsaid = { agreed: AGREED_TO_NOTHING };
    expect(afterProof(BY_ITSELF, drop({ ...unsaid, confirmedTo: 'everyone' }), false)).toBe('goes on');
    expect(afterProof(meant({ privacy: 'private' }), drop(unsaid), false)).toBe('goes on');
    expect(afterProof(meant({ privacy: 'link' }), drop({ ...unsaid, confirmedTo: 'everyone' }), false)).toBe('goes on');
  });

  it('is that it is held where that was only chosen, whatever moment has come', () => {
    expect(afterProof(BY_ITSELF, drop({ agreed: AGREED_TO_NOTHING }), false)).toBe('is held');
    expect(afterProof(BY_ITSELF, drop({ agreed: AGREED_TO_NOTHING, confirmedTo: 'link' }), false)).toBe('is held');
    const timed = meant({ release: 'at a time', opensAt: { wall: '2026-11-27T10:00:00', zone: 'UTC' } });
    expect(afterProof(timed, drop({ agreed: { to: timed.agreement, by: 'time' } }), false)).toBe('is held');
    const due = { releasedFor: timed.releaseKey };
    expect(afterProof(timed, drop({ ...due, agreed: { to: timed.agreement, by: 'time' } }), false)).toBe('goes on');
    expect(afterProof(timed, drop({ ...due, agreed: AGREED_TO_NOTHING }), false)).toBe('is held');
  });

  it('leaves the seconds of a word where changes were sent that show it to more people', () => {
    const byChanges = { agreed: { to: BY_ITSELF.agreement, by: 'changes' as const } };
    expect(afterProof(BY_ITSELF, drop(byChanges), false)).toBe('is held, and opens soon');
    expect(afterProof(BY_ITSELF, drop({ ...byChanges, confirmedTo: 'private' }), false)).toBe(
      'is held, and opens soon',
    );
    expect(afterProof(BY_ITSELF, drop({ ...byChanges, confirmedTo: 'everyone' }), false)).toBe('goes on');
    // With the word given, it goes on.
    expect(afterProof(BY_ITSELF, drop({ ...byChanges, openAsked: true }), false)).toBe('goes on');
  });

  it('asks nobody where the site opens everything by itself', () => {
    expect(afterProof(BY_ITSELF, drop({ agreed: AGREED_TO_NOTHING }), true)).toBe('goes on');
  });
});

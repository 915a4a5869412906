import { describe, expect, it } from 'vitest';
import type { SiteProfile, SiteStatus } from '@/sites/contract';
import { lanternfoldProfile } from '@/sites/lanternfold/profile';
import { isAsLeft } from './held-there';

const at = new Date('2026-12-01T12:00:00Z');
const later = new Date('2026-12-01T12:00:01Z');
const status = (told: Partial<SiteStatus> = {}): SiteStatus => ({
  ...{ state: { stage: 'ready' }, checks: { verdict: 'passed' }, privacy: 'private' },
  ...told,
});
const match = (state: 'open' | 'agreed') => ({ state }) as unknown as NonNullable<SiteStatus['matches']>[number];
const found = (of: 'rights' | 'review') => ({ verdict: 'found', of, what: 'w', remedy: 'r' }) as const;
const left = (
  told: Partial<SiteStatus> | undefined,
  drop: Parameters<typeof isAsLeft>[0] = { openedTo: undefined, siteOpensAt: undefined },
  profile: SiteProfile = lanternfoldProfile,
) => isAsLeft(drop, told && status(told), profile);

describe('what is held is as it was left', () => {
  it.each([
    ['nothing has changed', true, {}, undefined],
    ['it is gone', false, undefined, undefined],
    ['more people see it', false, { privacy: 'link' }, undefined],
    ['as many people see it as were let', true, { privacy: 'link' }, { openedTo: 'link', siteOpensAt: undefined }],
    ['fewer people see it', true, { privacy: 'private' }, { openedTo: 'link', siteOpensAt: undefined }],
    ['it has the time that it was told', true, { opensAt: at }, { openedTo: undefined, siteOpensAt: at }],
    ['it has another time', false, { opensAt: later }, { openedTo: undefined, siteOpensAt: at }],
    ['it has a time that nobody told', false, { opensAt: at }, undefined],
    ['it has no time any more', false, {}, { openedTo: undefined, siteOpensAt: at }],
    ['a match needs a person', false, { checks: found('rights'), matches: [match('open')] }, undefined],
    ['a match does not', true, { checks: found('rights'), matches: [match('agreed')] }, undefined],
    ['a review found something', false, { checks: found('review'), matches: [match('agreed')] }, undefined],
  ] as const)('where %s: %s', (_, is, told, drop) => {
    expect(left(told as Partial<SiteStatus> | undefined, drop)).toBe(is);
  });

  it('whatever a site shows that opens it by itself, or keeps no times', () => {
    const { keepsTime: _, ...timeless } = lanternfoldProfile;
    expect(left({ privacy: 'everyone' }, undefined, { ...lanternfoldProfile, opensItself: true })).toBe(true);
    expect(left({ opensAt: at }, undefined, timeless as SiteProfile)).toBe(true);
  });
});

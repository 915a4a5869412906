import { describe, expect, it } from 'vitest';
import type { Snag } from '@/core/drop';
import { tryAgainWords } from './action-words';

describe('what the button for trying again says', () => {
  const says = (snag: Partial<Snag>) => tryAgainWords({ snag: { what: '', remedy: '', ...snag } as Snag });

  it('is what it does, where somebody has changed at the site what waits there', () => {
    expect(says({ at: 'held', kind: 'difference', parts: ['privacy'] })).toBe('Close it there again');
    expect(says({ at: 'held', kind: 'difference' })).toBe('Set its time there again');
    expect(says({ at: 'proofing', kind: 'difference', parts: ['privacy'] })).toBe('Try again');
    expect(says({ at: 'held', kind: 'missed' })).toBe('Try again');
    expect(tryAgainWords({ snag: undefined })).toBe('Try again');
  });
});

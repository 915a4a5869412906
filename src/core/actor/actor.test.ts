import { describe, expect, it } from 'vitest';
import { actorWords, MANAGER, type Who } from '.';

describe('who did something', () => {
  it.each<[Who, string]>([
    [MANAGER, 'you'],
    ['person:isa', 'isa'],
    ['inbox', 'the inbox'],
    ['worker', 'Kettle Drop'],
    ['site:lanternfold', 'Lanternfold'],
  ])('%s is said as %s', (who, words) => {
    expect(actorWords({ who }, MANAGER, () => 'Lanternfold')).toBe(words);
  });

  it('says by what, where that is not a page', () => {
    const via = 'command line' as const;
    expect(actorWords({ who: MANAGER, via }, MANAGER, String)).toBe('you, by command line');
    expect(actorWords({ who: 'person:isa', via }, MANAGER, String)).toBe('isa, by command line');
  });
});

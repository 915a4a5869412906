import { describe, expect, it } from 'vitest';
import { whereWords } from './where-words';

const entry = (name: string, since?: 'closed' | 'removed') => ({
  ...{ channel: { name }, state: since ? ('removed' as const) : ('live' as const), since },
});

describe('where a video went out', () => {
  it('is named with how it stands, where it stands alike everywhere', () => {
    expect(whereWords([entry('Tide Notes'), entry('Quay School')])).toEqual({
      where: 'Tide Notes and Quay School',
      stands: 'live',
    });
    expect(whereWords([entry('Tide Notes', 'closed')])).toEqual({ where: 'Tide Notes', stands: 'closed since' });
    // What is still to open stands differently on each channel all the time.
    expect(whereWords([entry('Tide Notes'), { ...entry('Quay School'), state: 'held' }])).toEqual({
      where: 'Tide Notes and Quay School',
      stands: 'live, ready to open',
    });
  });

  it('says of each state where, where it was closed or removed on some since', () => {
    const entries = [entry('Tide Notes'), entry('Quay School', 'closed'), entry('Films', 'removed'), entry('Tools')];
    expect(whereWords(entries)).toEqual({
      where: '',
      stands: 'live on Tide Notes and Tools · closed since on Quay School · removed since on Films',
    });
  });
});

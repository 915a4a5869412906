import { describe, expect, it } from 'vitest';
import { askWords, MATCH_STATES, matchMeans, mayAgree, mayDispute, needsPerson } from './match';

const match = { owner: 'Harbour Lane Music', countries: ['DE', 'AT'] };
const means = (asks: Parameters<typeof matchMeans>[0]['asks'], state = 'open' as (typeof MATCH_STATES)[number]) =>
  matchMeans({ ...match, asks, state }).join(' ');

describe('what a match means', () => {
  it('names countries, adverts and sound, and says of each that it is no penalty', () => {
    expect(means('income')).toContain('Everyone can watch the video, in every country. If you agree, adverts may run');
    expect(means('silence')).toContain('If you agree, the site takes all sound off that part, also speech.');
    expect(means('closing in countries')).toContain('nobody in Germany and Austria can watch it');
    expect(means('closing')).toContain('Nobody can watch the video in any country while this part is in it.');
    for (const asks of ['income', 'silence', 'closing in countries', 'closing', undefined] as const) {
      for (const state of MATCH_STATES) expect(means(asks, state)).toContain('no penalty against the channel');
    }
  });

  it('is no more an “if” once it is agreed to, and nothing once the owner lets it go', () => {
    expect(means('income', 'agreed')).toContain('You agreed: adverts may run');
    expect(means('income', 'withdrawn')).toContain('Nothing changes for viewers or adverts.');
    expect(askWords({ asks: 'income', countries: [], state: 'withdrawn' })).toBe('asks for nothing any more');
    expect(askWords({ asks: 'closing in countries', countries: ['DE', 'AT'] })).toBe(
      'wants it closed in Germany and Austria',
    );
  });
});

it('a match waits for a person while it is open or upheld; it is disputed once, and agreed to where that leaves something', () => {
  const states = (may: (state: (typeof MATCH_STATES)[number]) => boolean) => MATCH_STATES.filter(may);
  expect(states((state) => needsPerson({ state }))).toEqual(['open', 'upheld']);
  expect(states((state) => mayDispute({ state }))).toEqual(['open']);
  expect(states((state) => mayAgree({ asks: 'income', state }))).toEqual(['open', 'disputed', 'upheld']);
  expect(states((state) => mayAgree({ asks: 'closing', state }))).toEqual([]);
  expect(states((state) => mayAgree({ asks: undefined, state }))).toEqual([]);
});

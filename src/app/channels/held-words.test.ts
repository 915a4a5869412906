import { describe, expect, it } from 'vitest';
import { heldWords } from './held-words';

const video = (title: string, opensAt?: string) => ({ title, channel: 'Tide Notes', opensAt });

describe('what is held where an account is disconnected', () => {
  it('is named with its time, or that it opens by a word', () => {
    expect(heldWords({ first: [video('Keel', '2026-12-04T17:00:00Z')], count: 1 }, 'Europe/Berlin')).toEqual([
      expect.stringMatching(/^One video is held there, .* say so: “Keel” on Tide Notes, Fri 4 Dec, 18:00 CET\.$/),
    ]);
    expect(heldWords({ first: [video('Keel'), video('Oak')], count: 3 }, 'UTC')).toEqual([
      '3 videos are held there, and do not open until you connect again and say so: “Keel” on Tide Notes, by your word; “Oak” on Tide Notes, by your word; 1 more.',
    ]);
  });

  it('is not said where nothing is', () => {
    expect(heldWords({ first: [], count: 0 }, 'UTC')).toEqual([]);
  });
});

import { describe, expect, it } from 'vitest';
import { reachedWords } from './reached';

const video = (title: string, ...fields: string[]) => ({ videoId: title, title, fields });

describe('what a change of defaults reaches', () => {
  it('is said by the fields and the videos, and what was sent is left alone', () => {
    expect(reachedWords([video('Keel', 'tags')])).toBe('Saved. It changes tags of “Keel”; nothing that was sent.');
    expect(reachedWords([video('Keel', 'tags'), video('Ribs', 'privacy', 'tags')])).toBe(
      'Saved. It changes tags and privacy of “Keel” and “Ribs”; nothing that was sent.',
    );
  });

  it('names no more than three videos', () => {
    const many = ['A', 'B', 'C', 'D', 'E'].map((title) => video(title, 'place'));
    expect(reachedWords(many)).toBe('Saved. It changes place of “A”, “B”, “C”, and 2 more; nothing that was sent.');
  });

  it('leaves out the video that goes without saying', () => {
    expect(reachedWords([video('Keel', 'tags')], 'Keel')).toBe(
      'Saved. No other unsent video changes by it, and nothing that was sent.',
    );
    expect(reachedWords([])).toBe('Saved. No unsent video changes by it, and nothing that was sent.');
  });
});

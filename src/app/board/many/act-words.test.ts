import { describe, expect, it } from 'vitest';
import type { Foreseen } from '@/desk/many/foresee-many';
import type { Act } from '@/desk/many/many-act';
import { actWords } from '@/ui/many/act-words';
import { questionBeforeMany } from './act-words';

const SEEN: Foreseen = {
  videos: 3,
  concerned: 2,
  places: 4,
  opening: 1,
  closing: 2,
  warned: 1,
  cannot: [{ why: 'no title', places: 1 }],
};
const ACTS: Act[] = [
  ...(['send', 'open', 'try again', 'delete'] as const).map((each) => ({ do: each })),
  { do: 'set', field: 'privacy', value: 'link' },
  { do: 'tags', tags: ['keel'] },
  { do: 'playlist', title: 'Keels' },
  { do: 'series', seriesId: null },
];

describe('what is said of an act on many videos', () => {
  it.each(ACTS)('before it, while it goes on and after it: %j', (act) => {
    const { title, follows, yes } = questionBeforeMany(act, SEEN);
    const { doing, done } = actWords(act);
    for (const words of [title, ...follows, yes, doing, done]) {
      expect(words).not.toMatch(/undefined|null|\b1 (videos|places|uploads)\b/);
      expect(words.length).toBeGreaterThan(3);
    }
  });

  it('counts what will happen, where it opens to everyone, and where it cannot', () => {
    const { title, follows } = questionBeforeMany({ do: 'send' }, SEEN);
    expect(title).toBe('Send 2 videos?');
    expect(follows).toEqual([
      '4 uploads will start.',
      '1 of them opens to everyone once checked.',
      'In the file of 1 video something was found; look at it first.',
      'Not in 1 place: no title.',
    ]);
    const set = questionBeforeMany({ do: 'set', field: 'privacy', value: 'everyone' }, SEEN);
    expect(set.follows[0]).toBe('In 2 places fewer people see it than now: it is closed to the others at once.');
    expect(questionBeforeMany({ do: 'delete' }, { ...SEEN, places: 0 }).follows).toHaveLength(1);
    expect(questionBeforeMany({ do: 'delete' }, SEEN).follows[1]).toContain('4 places at sites first');
  });
});

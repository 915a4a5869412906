import { describe, expect, it } from 'vitest';
import type { CutFacts } from '../delivery';
import { carriesAllSounds, leftOutOf } from './left-out';
import type { Recipe } from './recipe';

const facts = (sounds: string[], subtitles = 0) =>
  ({ more: { sounds: sounds.map((codec) => ({ codec })), subtitles } }) as CutFacts;
const recipe = (sound: Recipe['sound'], container: Recipe['container'] = 'mp4') => ({ container, sound }) as Recipe;
const encoded = { codec: 'aac' } as unknown as Recipe['sound'];
const FIRST_ONLY = 'of 2 sound tracks only the first goes along';

describe('what of a cut is not in its file', () => {
  it('is nothing where it goes as it is', () => {
    expect(leftOutOf(undefined, facts(['aac', 'aac'], 2))).toEqual([]);
  });

  it('is every sound track but the first, where sound is encoded', () => {
    expect(leftOutOf(recipe(encoded), facts(['aac', 'aac']))).toEqual([FIRST_ONLY]);
    expect(leftOutOf(recipe(encoded), facts(['aac']))).toEqual([]);
    expect(leftOutOf(recipe('copy'), facts(['aac', 'aac']))).toEqual([]);
  });

  it('is no track in particular where the file has no sound at all', () => {
    expect(leftOutOf(recipe('none'), facts(['aac', 'aac']))).toEqual([]);
  });

  it('is what the container cannot hold', () => {
    expect(carriesAllSounds(recipe('copy'), facts(['aac', 'vorbis']))).toBe(false);
    expect(leftOutOf(recipe('copy'), facts(['aac', 'vorbis']))).toEqual([FIRST_ONLY]);
  });

  it('is every subtitle, whatever becomes of the sound', () => {
    const lost = 'subtitles inside the file are left out (add them as captions)';
    expect(leftOutOf(recipe('copy'), facts(['aac'], 1))).toEqual([lost]);
    expect(leftOutOf(recipe(encoded), facts(['aac', 'aac'], 3))).toEqual([FIRST_ONLY, lost]);
  });
});

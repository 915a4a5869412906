import type { CutFacts } from '../delivery';
import type { Recipe } from './recipe';
import { HOLDS } from './settings';

/** Whether every sound track goes along: only where all are copied, and the container can hold each. */
export function carriesAllSounds(
  { container, sound }: Pick<Recipe, 'container' | 'sound'>,
  { more }: CutFacts,
): boolean {
  return sound === 'copy' && (more?.sounds.every(({ codec }) => HOLDS[container].sound.includes(codec)) ?? false);
}

/** What of a cut is not in the file that a recipe makes of it, each in a few words. */
export function leftOutOf(recipe: Recipe | undefined, facts: CutFacts): string[] {
  if (!recipe) return [];
  const sounds = facts.more?.sounds.length ?? 0;
  const subtitles = facts.more?.subtitles ?? 0;
  return [
    ...(sounds > 1 && recipe.sound !== 'none' && !carriesAllSounds(recipe, facts)
      ? [`of ${sounds} sound tracks only the first goes along`]
      : []),
    ...(subtitles > 0 ? [`subtitles inside the file are left out (add them as captions)`] : []),
  ];
}

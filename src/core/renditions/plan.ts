import type { Asked, CutToSend, Refusal } from './asked';
import { fewestThatServe } from './cover';
import { type Demand, demandOf } from './demand';
import { type Recipe, recipeText, WORKS, type Work, workOf } from './recipe';

/** A channel that is to get a file, by a key of its own. */
export interface Destination extends Asked {
  key: string;
}

/** A file with the channels that it goes to. */
export interface PlannedRendition {
  /** undefined: the cut as it is. */
  recipe: Recipe | undefined;
  work: Work;
  for: { key: string; why: string[] }[];
}

/** Which file goes to which channel; `refused` by the channel's key. */
export interface Plan {
  renditions: PlannedRendition[];
  refused: Map<string, Refusal>;
}

/** The name of a recipe; the cut as it is has one, too. */
export const AS_IT_IS = 'as it is';
export const textOf = (recipe: Recipe | undefined): string => (recipe ? recipeText(recipe) : AS_IT_IS);

/**
 * Which files a cut is sent as: never more work for a channel than it needs, and among those the fewest files that satisfy
 * all sites and settings.
 * @param made recipes, as texts, of files that are there already
 */
export function planRenditions(
  cut: CutToSend,
  destinations: readonly Destination[],
  made: ReadonlySet<string> = new Set(),
): Plan {
  const refused = new Map<string, Refusal>();
  const demands: { key: string; demand: Demand }[] = [];
  for (const { key, ...asked } of destinations) {
    const demand = demandOf(cut, asked);
    if ('refused' in demand) refused.set(key, demand);
    else demands.push({ key, demand });
  }
  const planned = new Map<string, PlannedRendition>();
  for (const work of WORKS) {
    const alike = demands.filter(({ demand }) => demand.work === work);
    const byText = new Map(alike.flatMap(({ demand }) => demand.recipes.map((recipe) => [textOf(recipe), recipe])));
    const chosen = fewestThatServe(
      alike.map(({ demand }) => demand.recipes.map(textOf)),
      made,
    );
    alike.forEach(({ key, demand }, index) => {
      const text = chosen[index] as string;
      const recipe = byText.get(text);
      const rendition = planned.get(text) ?? { recipe, work: workOf(recipe), for: [] };
      rendition.for.push({ key, why: demand.why });
      planned.set(text, rendition);
    });
  }
  return { renditions: [...planned.values()], refused };
}

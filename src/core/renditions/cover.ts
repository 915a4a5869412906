/** Beyond so many distinct demands, the fewest are looked for greedily: what is left to gain is small. */
const MOST_EXACT = 12;

/**
 * Chooses, for each demand, one of what it accepts, so that as few different ones as possible are chosen. Among the fewest,
 * those that stand earlier in the lists are preferred.
 * @param accepts for each demand what would serve it, the best first; none may be empty
 * @param free what costs nothing, since it is there already
 */
export function fewestThatServe(
  accepts: readonly (readonly string[])[],
  free: ReadonlySet<string> = new Set(),
): string[] {
  const candidates = [...new Set(accepts.flat())];
  const rank = (candidate: string) =>
    accepts.reduce((sum, list) => sum + Math.max(0, list.indexOf(candidate)), 0) / (accepts.length + 1);
  const ranks = new Map(candidates.map((candidate) => [candidate, rank(candidate)]));
  const cheaper = (a: string, b: string) =>
    Number(free.has(b)) - Number(free.has(a)) || (ranks.get(a) ?? 0) - (ranks.get(b) ?? 0);
  candidates.sort(cheaper);
  const distinct = [...new Set(accepts.map((list) => JSON.stringify([...list].sort())))].map(
    (text) => new Set(JSON.parse(text) as string[]),
  );
  const chosen = distinct.length <= MOST_EXACT ? exact(distinct, candidates, free) : greedy(distinct, candidates);
  return accepts.map((list) => {
    const best = list.find((candidate) => chosen.has(candidate));
    if (best === undefined) throw new Error('a demand that nothing serves');
    return best;
  });
}

/** Over all sets of demands that are served so far, the cheapest way to serve them. */
function exact(demands: readonly Set<string>[], candidates: readonly string[], free: ReadonlySet<string>): Set<string> {
  const all = (1 << demands.length) - 1;
  const serves = candidates.map((candidate) =>
    demands.reduce((mask, demand, index) => (demand.has(candidate) ? mask | (1 << index) : mask), 0),
  );
  const best: (string[] | undefined)[] = Array.from({ length: all + 1 }, () => undefined);
  const cost = (chosen: readonly string[]) => chosen.filter((candidate) => !free.has(candidate)).length;
  best[0] = [];
  for (let served = 0; served <= all; served += 1) {
    const soFar = best[served];
    if (!soFar || served === all) continue;
    // The first that is not served yet has to be served by something.
    const next = demands.findIndex((_, index) => (served & (1 << index)) === 0);
    candidates.forEach((candidate, index) => {
      const mask = serves[index] ?? 0;
      if ((mask & (1 << next)) === 0) return;
      const then = best[served | mask];
      const way = [...soFar, candidate];
      if (!then || cost(way) < cost(then)) best[served | mask] = way;
    });
  }
  return new Set(best[all]);
}

function greedy(demands: readonly Set<string>[], candidates: readonly string[]): Set<string> {
  const chosen = new Set<string>();
  let open = [...demands];
  while (open.length > 0) {
    const served = (candidate: string) => open.filter((demand) => demand.has(candidate)).length;
    const next = candidates.reduce((best, candidate) => (served(candidate) > served(best) ? candidate : best));
    chosen.add(next);
    open = open.filter((demand) => !demand.has(next));
  }
  return chosen;
}

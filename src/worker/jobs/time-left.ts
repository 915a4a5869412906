/** The first moments tell nothing of the rest. */
const TELLS_AFTER_SECONDS = 2;

/** So little done says nothing of the rest, either. */
const LEAST_FRACTION = 0.01;

/** Tells, from which part of some work is done since now, how many seconds are left; undefined as long as nobody knows. */
export function timeLeft(): (fraction: number) => number | undefined {
  const since = performance.now();
  return (fraction) => {
    const seconds = (performance.now() - since) / 1000;
    return seconds > TELLS_AFTER_SECONDS && fraction >= LEAST_FRACTION
      ? Math.round((seconds / fraction) * (1 - fraction))
      : undefined;
  };
}

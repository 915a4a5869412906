/** Hours within which a site usually answers a review. */
export interface ReviewHours {
  least: number;
  most: number;
}

/** Between when an answer is to be expected, and what that is known by. */
export interface ReviewExpected {
  from: Date;
  to: Date;
  by: 'reviews before' | 'the site’s usual hours';
}

/** Fewer reviews say nothing of the next. */
const LEAST_SEEN = 3;

/** The value below which a share of the sorted values lies. */
const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(share * sorted.length) - 1))] ?? 0;

/**
 * When an answer is to be expected: as long as nine of ten reviews before took, or within the hours that the site names.
 * @param seen seconds that reviews before took
 */
export function reviewExpected(
  handedIn: Date,
  hours: ReviewHours | undefined,
  seen: readonly number[],
): ReviewExpected | undefined {
  const after = (seconds: number) => new Date(handedIn.getTime() + seconds * 1000);
  if (seen.length >= LEAST_SEEN) {
    const sorted = [...seen].sort((a, b) => a - b);
    return { from: after(quantile(sorted, 0.1)), to: after(quantile(sorted, 0.9)), by: 'reviews before' };
  }
  if (!hours) return undefined;
  return { from: after(hours.least * 3600), to: after(hours.most * 3600), by: 'the site’s usual hours' };
}

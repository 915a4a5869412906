const LONGEST_SECONDS = 3600;

/**
 * The seconds that a Retry-After field asks to wait (RFC 9110, section 10.2.3: delay-seconds, or an HTTP-date), from 1 up
 * to an hour; undefined where it is neither.
 * @param now for a field with a date
 */
export function retryAfterSeconds(field: string | undefined, now: Date): number | undefined {
  const text = field?.trim() ?? '';
  const seconds = /^\d+$/.test(text) ? Number(text) : secondsUntil(text, now);
  if (seconds === undefined) return undefined;
  return Math.min(LONGEST_SECONDS, Math.max(1, seconds));
}

/** An HTTP-date begins with the name of a day (section 5.6.7), which keeps other things out that engines take for dates. */
function secondsUntil(text: string, now: Date): number | undefined {
  if (!/^(Mon|Tue|Wed|Thu|Fri|Sat|Sun)/.test(text)) return undefined;
  const at = Date.parse(text);
  return Number.isNaN(at) ? undefined : Math.ceil((at - now.getTime()) / 1000);
}

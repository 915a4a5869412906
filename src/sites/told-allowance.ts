import { type Item, parseList } from 'structured-headers';
import { type Allowance, retryAfterSeconds } from '@/core/work';
import type { AnswerHead } from './contract';

/** The items of a list that names policies (RFC 9651, section 3.1); none where the field is missing or is no such list. */
function policies(field: string | undefined): Map<string, Map<string, unknown>> {
  if (field === undefined) return new Map();
  try {
    const items = parseList(field).filter((entry): entry is Item => typeof entry[0] === 'string');
    return new Map(items.map(([name, parameters]) => [String(name), parameters]));
  } catch {
    return new Map();
  }
}

const natural = (value: unknown): number | undefined =>
  typeof value === 'number' && Number.isSafeInteger(value) && value >= 0 ? value : undefined;

/** Longer than any site's window, and shorter than a site's slip that would stop an account for good. */
const LONGEST_SECONDS = 86_400;

/**
 * What an answer tells of the requests that are left: the fields RateLimit (`r` left, `t` seconds) and RateLimit-Policy (`q` in
 * all, `w` seconds) of the IETF's draft “RateLimit header fields for HTTP”. A 429 that says when to come back (RFC 6585,
 * section 4) leaves none until then.
 */
export function toldAllowances({ status, field }: AnswerHead): Allowance[] {
  const windows = policies(field('ratelimit-policy'));
  const told = [...policies(field('ratelimit'))].flatMap(([policy, left]): Allowance[] => {
    const remaining = natural(left.get('r'));
    const seconds = natural(left.get('t')) ?? natural(windows.get(policy)?.get('w'));
    if (remaining === undefined || seconds === undefined) return [];
    const quota = natural(windows.get(policy)?.get('q'));
    return [{ policy: policy.slice(0, 60), remaining, quota, seconds: Math.min(LONGEST_SECONDS, seconds) }];
  });
  const wait = status === 429 ? retryAfterSeconds(field('retry-after'), new Date()) : undefined;
  if (wait === undefined) return told;
  return [...told, { policy: 'too many requests', remaining: 0, quota: undefined, seconds: wait }];
}

import { canDropFrames, exactRate, type Rate, rate } from './rate';

/**
 * A rate as people write it: `25`, `29.97`, `29.97df`, `24000/1001`. A decimal near a multiple of 1000/1001 is that.
 * @returns undefined where it is none, or where drop-frame is not defined for it
 */
export function parseRate(text: string): Rate | undefined {
  const match = /^(\d{1,7}(?:\.\d{1,9})?)(?:\/(\d{1,7}))?\s*(df|ndf)?$/i.exec(text.trim());
  if (!match?.[1]) return undefined;
  const exact = match[2] === undefined ? exactRate(Number(match[1])) : wholeRate(match[1], match[2]);
  if (!exact) return undefined;
  if (match[3]?.toLowerCase() !== 'df') return exact;
  return canDropFrames(exact) ? { ...exact, dropFrame: true } : undefined;
}

function wholeRate(num: string, den: string): Rate | undefined {
  return /^\d+$/.test(num) && Number(num) > 0 && Number(den) > 0 ? rate(Number(num), Number(den)) : undefined;
}

import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import type { BitMeasures } from '@/core/delivery';
import { type Fraction, fraction, minus, over, times, toNumber } from '@/core/time';

/** Steps that a ruler can show: finer ones would only cost memory. */
const MOST_STEPS = 4000;

const TIME_BASE = /^#tb 0: (\d+)\/(\d+)/;
const PACKET = /^0,\s*(-?\d+),\s*-?\d+,\s*\d+,\s*(\d+),/;

/**
 * How many bits the picture takes over time, told packet by packet as `framecrc` writes them: stream, when it is decoded, when
 * it is shown, how long, and how many bytes (ffmpeg-formats, framecrc).
 * @param seconds how long the cut is
 */
export async function bitsOverTime(stream: Readable, seconds: number): Promise<BitMeasures> {
  const step = Math.max(1, Math.ceil(seconds / MOST_STEPS));
  const bytes: number[] = [];
  let base: Fraction = fraction(1, 1);
  let first: Fraction | undefined;
  for await (const line of createInterface({ input: stream })) {
    const told = TIME_BASE.exec(line);
    if (told) base = fraction(Number(told[1]), Number(told[2]));
    const packet = PACKET.exec(line);
    if (!packet) continue;
    const at = times(fraction(Number(packet[1])), base);
    first ??= at;
    const index = Math.max(0, Math.floor(toNumber(over(minus(at, first), fraction(step)))));
    bytes[index] = (bytes[index] ?? 0) + Number(packet[2]);
  }
  const kilobits = Array.from(bytes, (each = 0) => Math.round((each * 8) / 1000 / step));
  return { step: step * 1000, kilobits };
}

import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import { type Fraction, fromDecimal, ZERO } from '@/core/time';

/** What a filter says of one frame: when it is shown, and values by their keys (ffmpeg-filters, `metadata=print`). */
export interface ToldFrame {
  /** Exact seconds of the cut, to the microsecond as ffmpeg writes them. */
  at: Fraction;
  values: Map<string, string>;
}

const FRAME = /^frame:\d+\s+pts:\S+\s+pts_time:(\S+)/;

/** Gives each frame that is told of, in order. */
export async function eachFrame(stream: Readable, hear: (frame: ToldFrame) => void): Promise<void> {
  let frame: ToldFrame | undefined;
  for await (const line of createInterface({ input: stream })) {
    const at = FRAME.exec(line)?.[1];
    if (at !== undefined) {
      if (frame) hear(frame);
      frame = { at: fromDecimal(at) ?? ZERO, values: new Map() };
      continue;
    }
    const equals = line.indexOf('=');
    if (equals > 0) frame?.values.set(line.slice(0, equals), line.slice(equals + 1));
  }
  if (frame) hear(frame);
}

/** A value that is a number. */
export function numberIn({ values }: ToldFrame, key: string): number | undefined {
  const value = Number(values.get(key) ?? Number.NaN);
  return Number.isFinite(value) ? value : undefined;
}

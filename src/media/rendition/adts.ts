import { createReadStream } from 'node:fs';

/** A file that is no AAC in ADTS, or not whole. */
export class NoAdts extends Error {
  override name = 'NoAdts';
}

/** Bytes of a header (ISO/IEC 14496-3, 1.A.2.2, ADTS; from memory): with a checksum two more. */
const HEADER = 7;
const CHECKSUM = 2;

/**
 * The frames of a file of AAC as ADTS, one after the other, each with its header.
 * @throws NoAdts where it is no such file, or ends within a frame
 */
export async function* adtsFrames(file: string): AsyncGenerator<Buffer> {
  let rest: Buffer = Buffer.alloc(0);
  for await (const chunk of createReadStream(file, { highWaterMark: 256 * 1024 })) {
    rest = rest.length > 0 ? Buffer.concat([rest, chunk as Buffer]) : (chunk as Buffer);
    let at = 0;
    while (rest.length - at >= HEADER) {
      if (rest.readUInt16BE(at) >> 4 !== 0xfff) throw new NoAdts('This is no ADTS');
      const length = ((rest.readUIntBE(at + 3, 3) >> 5) & 0x1fff) as number;
      if (length < HEADER) throw new NoAdts('This is no ADTS');
      if (rest.length - at < length) break;
      yield rest.subarray(at, at + length);
      at += length;
    }
    rest = rest.subarray(at);
  }
  if (rest.length > 0) throw new NoAdts('The file ends within a frame');
}

/** What of a frame's header is the same in all frames of one sound: object type, sample rate, channels. */
export const soundFormatOf = (frame: Buffer): string => `${frame[1]} ${frame[2]} ${(frame[3] ?? 0) >> 6}`;

/** How a frame is windowed; its second half overlaps with the first half of the next. */
export interface FrameWindow {
  /** Whether it is one long window with long slopes on both sides. */
  long: boolean;
  /** The shape of its second half: 0 is a sine, 1 a Kaiser-Bessel derived window. */
  shape: number;
}

const CHANNEL_PAIR = 1;
const SINGLE_CHANNEL = 0;

/**
 * The window of a frame's first element, where that is a channel or a pair of them with one window for both (ISO/IEC
 * 14496-3, 4.4.2.1 and 4.4.2.7: single_channel_element, channel_pair_element, ics_info; from memory).
 */
export function windowOf(frame: Buffer): FrameWindow | undefined {
  const from = HEADER + ((frame[1] ?? 1) & 1 ? 0 : CHECKSUM);
  if (frame.length < from + 4) return undefined;
  const bits = frame.readUInt32BE(from);
  const take = (first: number, count: number) => (bits >>> (32 - first - count)) & ((1 << count) - 1);
  const element = take(0, 3);
  // Behind the element's kind and its number of four bits: whether both share a window, or the gain of the one.
  const at = element === CHANNEL_PAIR && take(7, 1) === 1 ? 8 : element === SINGLE_CHANNEL ? 15 : undefined;
  if (at === undefined) return undefined;
  return { long: take(at + 1, 2) === 0, shape: take(at + 3, 1) };
}

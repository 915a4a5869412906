import { describe, expect, it } from 'vitest';
import { compare, fraction, minus, rate, timeOfFrame } from '../time';
import { marker } from './marker';
import { readMarkerFile } from './read';
import { MARKER_WRITERS } from './write';

const at = rate(30000, 1001);
const marks = (...seconds: number[]) =>
  seconds.map((second, index) => marker({ time: fraction(second * 10, 10), name: `Part ${index}` }));
const spans = (text: string) =>
  readMarkerFile(new TextEncoder().encode(text)).markers.map(({ time, length }) => [
    time.num / time.den,
    time.num / time.den + length.num / length.den,
  ]);

describe('what a chapter lasts', () => {
  it('ends with the range, for the last one', () => {
    const file = { rate: undefined, startFrame: 0, markers: marks(0, 20, 40), end: fraction(95) };
    for (const format of ['vtt', 'ffmetadata', 'matroska', 'json'] as const) {
      expect(spans(MARKER_WRITERS[format](file)), format).toEqual([
        [0, 20],
        [20, 40],
        [40, 95],
      ]);
    }
  });

  it('never goes beyond the range, and is never nothing', () => {
    const long = [marker({ time: fraction(10), length: fraction(100), name: 'long' }), ...marks(10, 30)];
    const file = { rate: undefined, startFrame: 0, markers: long, end: fraction(50) };
    for (const format of ['vtt', 'ffmetadata', 'matroska'] as const) {
      for (const [from = 0, to = 0] of spans(MARKER_WRITERS[format](file))) {
        expect(to, format).toBeGreaterThan(from);
        expect(to, format).toBeLessThanOrEqual(50);
      }
    }
  });

  it('starts in its frame, for a player that counts thousandths', () => {
    const frames = Array.from({ length: 200 }, (_, index) => index * 17);
    const markers = frames.map((frame) => marker({ time: timeOfFrame(frame, at), name: String(frame) }));
    for (const format of ['vtt', 'json', 'csv'] as const) {
      const read = readMarkerFile(
        new TextEncoder().encode(MARKER_WRITERS[format]({ rate: undefined, startFrame: 0, markers })),
      );
      read.markers.forEach(({ time }, index) => {
        const start = timeOfFrame(frames[index] ?? 0, at);
        expect(compare(time, start), format).toBeGreaterThanOrEqual(0);
        expect(compare(minus(time, start), fraction(1, 1000)), format).toBeLessThan(0);
      });
    }
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Caption } from './caption';
import { captionFindings, FASTEST_READING } from './findings';
import { mayBeCaptions, readCaptions } from './read';
import { writeSubrip, writeWebvttCaptions } from './write';

const bytes = (text: string) => new TextEncoder().encode(text);
const SUBRIP =
  '1\n00:00:01,000 --> 00:00:03,500\nThe <i>tide</i> turns\nat noon\n\n2\n00:00:04,000 --> 00:00:06,000\nand so do we\n';

describe('captions', () => {
  it('are read from SubRip and WebVTT alike, line by line, without tags', () => {
    const expected: Caption[] = [
      { from: 1000, to: 3500, lines: ['The tide turns', 'at noon'] },
      { from: 4000, to: 6000, lines: ['and so do we'] },
    ];
    expect(readCaptions(bytes(SUBRIP))).toEqual({ format: 'subrip', captions: expected });
    const webvtt = `WEBVTT\n\n00:01.000 --> 00:03.500 line:1\nThe <b>tide</b> turns\nat noon\n\n00:04.000 --> 00:06.000\nand so do we\n`;
    expect(readCaptions(bytes(webvtt))).toEqual({ format: 'webvtt', captions: expected });
  });

  it('are refused where they are neither, or a line cannot be read', () => {
    expect(() => readCaptions(bytes('0:00 Intro'))).toThrow(/SubRip or WebVTT/);
    expect(() => readCaptions(bytes('1\n00:00:01,000 --> soon\nx'))).toThrow(/neither|Line|captions/);
    expect(mayBeCaptions('TITLE: an edit')).toBe(false);
  });

  it('go out and come back as they were', () => {
    const line = fc.constantFrom('A & B', 'x < y', 'Öl 🛶', 'plain');
    const caption = fc
      .tuple(fc.nat(3_600_000), fc.integer({ min: 1, max: 9000 }), fc.array(line, { minLength: 1, maxLength: 3 }))
      .map(([from, length, lines]): Caption => ({ from, to: from + length, lines }));
    fc.assert(
      fc.property(fc.array(caption, { minLength: 1, maxLength: 8 }), (captions) => {
        expect(readCaptions(bytes(writeWebvttCaptions(captions))).captions).toEqual(captions);
        const plain = captions.map((each) => ({ ...each, lines: each.lines.map((text) => text.replace('<', '')) }));
        expect(readCaptions(bytes(writeSubrip(plain))).captions.map(({ from, to }) => [from, to])).toEqual(
          captions.map(({ from, to }) => [from, to]),
        );
      }),
    );
  });

  it('are checked for order, overlap, emptiness, reading speed and the end of the cut', () => {
    const found = (captions: Caption[], duration?: number) =>
      captionFindings(captions, duration).map(({ what }) => what);
    const words = ['x'.repeat(FASTEST_READING)];
    expect(found([{ from: 0, to: 1000, lines: words }])).toEqual([]);
    expect(found([{ from: 0, to: 900, lines: words }])[0]).toContain('28 characters a second');
    const second = (from: number, to: number) => [
      { from: 2000, to: 4000, lines: ['a'] },
      { from, to, lines: ['b'] },
    ];
    expect(found(second(1000, 1500))).toEqual(['starts before the one above it']);
    expect(found(second(3500, 5000))).toEqual(['starts 0.5 s before the last one ends']);
    expect(found(second(5000, 5000))).toContain('takes no time');
    expect(found([{ from: 0, to: 1000, lines: [] }])).toEqual(['has no words']);
    expect(found(second(5000, 6000), 4500)).toEqual(['starts after the end of the video']);
  });
});

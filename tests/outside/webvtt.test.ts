import { createRequire } from 'node:module';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type WebVTTNode, WebVTTParser } from 'webvtt-parser';
import { marker, readWebvtt, webvttStamp, webvttTime, writeWebvtt } from '@/core/markers';
import { fraction, toDecimal } from '@/core/time';

const ENTITIES = createRequire(import.meta.url)('webvtt-parser/html-entities.json') as Record<string, string>;

const CUES = fc.array(
  fc.tuple(
    fc.nat(5_000_000),
    fc.integer({ min: 1, max: 60_000 }),
    fc.constantFrom(
      'Plain',
      'A &amp; B',
      '<b>Bold</b> words',
      'x &lt; y',
      '<v Wil>Low water',
      'Öl 🛶',
      '&nbsp;',
      'a &zwj; b',
    ),
    fc.constantFrom('', 'id 1', 'a long identifier'),
    fc.constantFrom('', ' align:start', ' line:0 position:20%'),
  ),
  { minLength: 1, maxLength: 8 },
);

const stamp = (milliseconds: number, hours: boolean) => {
  const text = webvttStamp(fraction(milliseconds, 1000));
  return !hours && text.startsWith('00:') ? text.slice(3) : text;
};

describe('agreement with the registry package webvtt-parser, the W3C’s own', () => {
  it('on times and words of cues, with and without hours, identifiers and settings', () => {
    fc.assert(
      fc.property(CUES, fc.boolean(), fc.constantFrom('\n', '\r\n'), (cues, hours, end) => {
        let at = 0;
        const inOrder = cues.map(([gap, ...rest]) => {
          // Theirs sorts cues by their start, as a player needs them; ours keeps the order of the file.
          at += gap + 1;
          return [at, ...rest] as const;
        });
        const blocks = inOrder.map(([from, length, words, id, settings]) =>
          [...(id ? [id] : []), `${stamp(from, hours)} --> ${stamp(from + length, hours)}${settings}`, words, ''].join(
            end,
          ),
        );
        const text = ['WEBVTT', '', ...blocks].join(end);
        const theirs = new WebVTTParser(ENTITIES).parse(text, 'chapters').cues;
        const ours = readWebvtt(text).markers;
        expect(ours).toHaveLength(theirs.length);
        ours.forEach(({ time, name }, index) => {
          expect(toDecimal(time, 3)).toBe((theirs[index]?.startTime ?? -1).toFixed(3));
          expect(name).toBe(plainWords(theirs[index]?.tree.children ?? []));
        });
      }),
      { numRuns: 200 },
    );
  });

  it('finds no fault with what we write', () => {
    const markers = [
      marker({ time: fraction(0), name: 'A & B --> C' }),
      marker({ time: fraction(7249, 2), name: '<i>Not a tag</i>' }),
    ];
    const { cues, errors } = new WebVTTParser(ENTITIES).parse(writeWebvtt({ markers }), 'chapters');
    expect(errors).toEqual([]);
    expect(cues.map((cue) => plainWords(cue.tree.children))).toEqual(['A & B --> C', '<i>Not a tag</i>']);
  });
});

function plainWords(nodes: WebVTTNode[]): string {
  const words = nodes.map((node) => (node.type === 'text' ? node.value : plainWords(node.children))).join('');
  return words.replace(/\s+/g, ' ').trim();
}

describe('WebVTT by the W3C Candidate Recommendation of 4 April 2019', () => {
  // Section 4.3, "WebVTT timestamp": hours optional, two or more digits; minutes and seconds 00 to 59; three digits of a second.
  it.each([
    ['00:00.000', fraction(0)],
    ['00:20.000', fraction(20)],
    ['01:07:32.053', fraction(4052053, 1000)],
    ['100:00:00.000', fraction(360000)],
    ['59:59.999', fraction(3599999, 1000)],
  ])('%s is a timestamp', (text, time) => {
    expect(webvttTime(text)).toEqual(time);
  });

  it.each(['0:00.000', '00:60.000', '60:00.000', '00:00.00', '00:00,000', '1:00:00.000', '00:00.0000', '-00:01.000'])(
    '%s is none',
    (text) => {
      expect(webvttTime(text)).toBeUndefined();
    },
  );

  it('reads the example of chapters in section 1.5, "Other features": nested by time, one title each', () => {
    // From memory of the specification's chapter example.
    const text = `WEBVTT

NOTE
This is from a talk Silvia gave about WebVTT.

Slide 1
00:00:00.000 --> 00:00:10.700
Title Slide

Slide 2
00:00:10.700 --> 00:00:47.600
Introduction by Naomi Black

Slide 3
00:00:47.600 --> 00:01:50.100
Impact of Captions on the Web
`;
    expect(readWebvtt(text).markers.map((marker) => [marker.time, marker.name])).toEqual([
      [fraction(0), 'Title Slide'],
      [fraction(107, 10), 'Introduction by Naomi Black'],
      [fraction(238, 5), 'Impact of Captions on the Web'],
    ]);
  });

  it('passes over comments, styles and regions, and resolves character references (4.2.2)', () => {
    const text =
      'WEBVTT - a title\nKind: chapters\n\nSTYLE\n::cue { color: red }\n\nREGION\nid:fred\n\n00:01.000 --> 00:02.000\n<v Roger>A &lt; B &amp; C&nbsp;D';
    expect(readWebvtt(text).markers.map((marker) => marker.name)).toEqual(['A < B & C D']);
  });
});

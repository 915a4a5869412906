import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, fraction, frameAtTime, minus, rate, timeOfFrame } from '../time';
import { type MarkerFile, MarkerFileError, marker } from './marker';
import { readMarkerFile } from './read';
import { MARKER_WRITERS, type WrittenFormat } from './write';

const RATES = [
  rate(24000, 1001),
  rate(25),
  rate(30000, 1001),
  rate(30000, 1001, true),
  rate(50),
  rate(60000, 1001, true),
];

/** Names as people write them: one line, no white space at the ends; line ends and marks of every format inside. */
const name = fc
  .oneof(fc.string(), fc.constantFrom('a, b; "c"', 'x = y # z \\ w', '<b> & --> ]]>', 'Öl 🛶', '[CHAPTER]', "it's"))
  .map((text) =>
    text
      .replace(/[\p{Cc}\p{Zl}\p{Zp}\ufeff]/gu, '')
      .replace(/\s+/g, ' ')
      .trim(),
  )
  .filter((text) => text !== '' && text.isWellFormed());

const files = fc
  .tuple(
    fc.constantFrom(...RATES),
    fc.uniqueArray(fc.integer({ min: 0, max: 2_000_000 }), { minLength: 1, maxLength: 20 }),
    fc.array(fc.tuple(name, fc.constantFrom('red', 'green', 'blue'), fc.boolean()), { minLength: 20, maxLength: 20 }),
  )
  .map(
    ([at, frames, words]): Pick<MarkerFile, 'rate' | 'startFrame' | 'markers'> => ({
      rate: at,
      startFrame: 90_000,
      markers: frames
        .sort((a, b) => a - b)
        .map((frame, index) => {
          const [title = '', colour = '', hidden = false] = words[index] ?? [];
          return marker({ time: timeOfFrame(frame, at), name: title, colour, hidden });
        }),
    }),
  );

/** What a format can hold of a marker; times to the unit that it counts in. */
const KEEPS: Record<WrittenFormat, { exact: boolean; colour: boolean; hidden: boolean }> = {
  edl: { exact: true, colour: true, hidden: false },
  otio: { exact: true, colour: true, hidden: false },
  vtt: { exact: false, colour: false, hidden: false },
  ffmetadata: { exact: true, colour: false, hidden: false },
  matroska: { exact: false, colour: false, hidden: true },
  json: { exact: false, colour: false, hidden: true },
  csv: { exact: true, colour: true, hidden: false },
  text: { exact: false, colour: false, hidden: false },
};

const UNIT: Partial<Record<WrittenFormat, number>> = { vtt: 1000, matroska: 1e9, json: 1000, text: 1 };

describe('every format that is written is read as what it was', () => {
  it.each((Object.keys(MARKER_WRITERS) as WrittenFormat[]).filter((format) => format !== 'text'))('%s', (format) => {
    const keeps = KEEPS[format];
    fc.assert(
      fc.property(files, (file) => {
        const text = MARKER_WRITERS[format](file);
        const read = readMarkerFile(new TextEncoder().encode(text), { rate: file.rate, start: undefined });
        expect(read.markers).toHaveLength(file.markers.length);
        read.markers.forEach((got, index) => {
          const meant = file.markers[index] ?? got;
          if (keeps.exact && format !== 'csv' && format !== 'edl') expect(got.time).toEqual(meant.time);
          const unit = fraction(1, UNIT[format] ?? 1e9);
          expect(compare(got.time, meant.time)).toBeGreaterThanOrEqual(0);
          expect(compare(minus(got.time, unit), meant.time)).toBeLessThan(0);
          // A player that seeks there shows the frame that was marked, and not the one before.
          if (file.rate) expect(frameAtTime(got.time, file.rate)).toBe(frameAtTime(meant.time, file.rate));
          expect(got.name).toBe(meant.name);
          if (keeps.colour) expect(got.colour).toBe(meant.colour);
          if (keeps.hidden) expect(got.hidden).toBe(meant.hidden);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('text, to the second that viewers see', () => {
    const markers = [0, 61.5, 3725].map((seconds, index) =>
      marker({ time: fraction(seconds * 10, 10), name: `Part ${index}` }),
    );
    const text = MARKER_WRITERS.text({ markers });
    expect(text).toBe('0:00:00 Part 0\n0:01:01 Part 1\n1:02:05 Part 2\n');
    expect(readMarkerFile(new TextEncoder().encode(text)).markers.map((got) => [got.time.num, got.name])).toEqual([
      [0, 'Part 0'],
      [61, 'Part 1'],
      [3725, 'Part 2'],
    ]);
  });
});

describe('no input brings a reader down', () => {
  const pieces = fc.constantFrom(
    ...[
      '{"OTIO_SCHEMA":"Timeline.1","tracks":',
      '{"OTIO_SCHEMA":"Stack.1","children":[',
      ']',
      '}',
      '{"chapters":[',
      '"startTime":1e308',
    ],
    ...[
      '<Chapters><EditionEntry>',
      '<ChapterAtom>',
      '</ChapterAtom>',
      '&amp;',
      '<!DOCTYPE x [<!ENTITY a "b">]>',
      ';FFMETADATA1\n[CHAPTER]\n',
    ],
    ...[
      'TIMEBASE=0/0\n',
      'START=99999999999999999999\n',
      'time,name\n',
      '"',
      '\n',
      '\t',
      '00:00:01;02',
      '1\n00:00:00,000 --> ',
    ],
  );
  it('pieces of every format, in any order', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(pieces, fc.string()), { maxLength: 30 }), (parts) => {
        try {
          readMarkerFile(new TextEncoder().encode(parts.join('')));
        } catch (error) {
          expect(error).toBeInstanceOf(MarkerFileError);
        }
      }),
      { numRuns: 500 },
    );
  });

  it('deep nesting and large numbers', () => {
    const deep = `{"OTIO_SCHEMA":"Timeline.1","tracks":${'{"OTIO_SCHEMA":"Stack.1","children":['.repeat(5000)}${']}'.repeat(5000)}}`;
    const bytes = (text: string) => new TextEncoder().encode(text);
    expect(() => readMarkerFile(bytes(deep))).toThrow(/nested/);
    expect(() => readMarkerFile(new Uint8Array(17 * 1024 * 1024))).toThrow(/larger/);
    const atoms = `<Chapters><EditionEntry>${'<ChapterAtom><ChapterTimeStart>00:00:01</ChapterTimeStart>'.repeat(99)}${'</ChapterAtom>'.repeat(99)}</EditionEntry></Chapters>`;
    expect(() => readMarkerFile(bytes(atoms))).toThrow(MarkerFileError);
  });
});

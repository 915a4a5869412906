import { describe, expect, it } from 'vitest';
import { MarkerFileError } from './marker';
import { readMarkerFile } from './read';

const LENGTH = 200_000;
const bytes = (text: string) => new TextEncoder().encode(text);

// A reader that takes the square of a line's length would take minutes for one of these, and the test's time would be over.
describe('a line of any length costs no more than its length', () => {
  it.each([
    ['stars', '* '],
    ['spaces', ' '],
    ['dashes and colons', 'a - : '],
    ['brackets', '( ['],
    ['digits', '1:'],
    ['angle brackets', '<'],
  ])('%s', (_, piece) => {
    const line = `a${piece.repeat(LENGTH / piece.length)}b`;
    expect(() => readMarkerFile(bytes(line))).toThrow(MarkerFileError);
    expect(readMarkerFile(bytes(`${line}\nTitle 1:00\n`)).markers).toMatchObject([{ name: 'Title' }]);
    const captions = [`WEBVTT\n\n00:00.000 --> 00:01.000\n${line}\n`, `1\n00:00:00,000 --> 00:00:01,000\n${line}\n`];
    for (const text of captions) expect(readMarkerFile(bytes(text)).markers).toHaveLength(1);
  });
});

describe('a time at the end of a line', () => {
  it.each([
    ['Second coat 1:05:00', 'Second coat'],
    ['* Second coat (1:05:00)', 'Second coat'],
    ['Second coat - 1:05:00', 'Second coat'],
    ['Second coat: 1:05:00', 'Second coat'],
    ['Coat 2 – 1:05:00 ', 'Coat 2'],
  ])('%s', (line, name) => {
    expect(readMarkerFile(bytes(line)).markers).toMatchObject([{ name, time: { num: 3900, den: 1 } }]);
  });

  it('after a title of any length', () => {
    const name = 'Second coat '.repeat(2000).trim();
    expect(readMarkerFile(bytes(`${name} 1:05:00`)).markers).toMatchObject([{ name }]);
  });

  it.each(['at16:9', 'Ratio/16:09', '1:05x', '12345:06'])('%s has none', (line) => {
    expect(() => readMarkerFile(bytes(line))).toThrow(MarkerFileError);
  });
});

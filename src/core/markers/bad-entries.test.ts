import { describe, expect, it } from 'vitest';
import { rate } from '../time';
import type { MarkerFile } from './marker';
import { readMarkerFile } from './read';

const read = (text: string, fileName = '') =>
  readMarkerFile(new TextEncoder().encode(text), { rate: rate(25) }, undefined, fileName);
const names = (file: MarkerFile) => file.markers.map(({ name }) => name);
const lost = (file: MarkerFile) => file.findings.filter(({ done }) => done === 'left it out').map(({ at }) => at);

/** In every format: a file with a first and a last entry that are well and one between that is not. */
const FILES: Record<string, { text: string; at: string; fileName?: string }> = {
  'an edit decision list': {
    text: `TITLE: x
001  AX       V     C        01:00:00:00 01:01:00:00 01:00:00:00 01:01:00:00
* LOC: 01:00:01:00 GREEN   first
* LOC: 01:00:99:00 GREEN   bad
* LOC: 01:00:30:00 GREEN   last`,
    at: 'line 4',
  },
  WebVTT: {
    text: 'WEBVTT\n\n00:01.000 --> 00:02.000\nfirst\n\n00:61.000 --> 00:62.000\nbad\n\n00:30.000 --> 00:31.000\nlast\n',
    at: 'line 6',
  },
  SubRip: {
    text: '1\n00:00:01,000 --> 00:00:02,000\nfirst\n\n2\n00:00:soon --> 00:00:05,000\nbad\n\n3\n00:00:30,000 --> 00:00:31,000\nlast\n',
    at: 'line 6',
  },
  FFMETADATA: {
    text: ';FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1\nSTART=1\ntitle=first\n[CHAPTER]\nTIMEBASE=1/1\nSTART=x\ntitle=bad\n[CHAPTER]\nTIMEBASE=1/1\nSTART=30\ntitle=last\n',
    at: 'line 8',
  },
  'Matroska XML': {
    text: `<Chapters><EditionEntry>${['00:00:01.0', 'soon', '00:00:30.0']
      .map(
        (time, index) =>
          `<ChapterAtom><ChapterTimeStart>${time}</ChapterTimeStart><ChapterDisplay><ChapterString>${['first', 'bad', 'last'][index]}</ChapterString></ChapterDisplay></ChapterAtom>`,
      )
      .join('')}</EditionEntry></Chapters>`,
    at: 'edition 1, chapter 2',
  },
  'JSON chapters': {
    text: JSON.stringify({
      chapters: [
        { startTime: 1, title: 'first' },
        { startTime: 'soon', title: 'bad' },
        { startTime: 30, title: 'last' },
      ],
    }),
    at: 'chapter 2',
  },
  'a table': { text: 'time,name\n1,first\nsoon,bad\n30,last\n', at: 'line 3' },
  'a table with a quotation mark that is not closed': {
    text: 'time,name\n1,first\n2,"bad\n30,last\n',
    at: 'line 3',
  },
  OpenTimelineIO: {
    text: JSON.stringify({
      OTIO_SCHEMA: 'Timeline.1',
      tracks: {
        OTIO_SCHEMA: 'Stack.1',
        children: [],
        markers: [1, 'soon', 30].map((value, index) => ({
          OTIO_SCHEMA: 'Marker.2',
          name: ['first', 'bad', 'last'][index],
          marked_range: {
            start_time: { OTIO_SCHEMA: 'RationalTime.1', rate: 1, value },
            duration: { OTIO_SCHEMA: 'RationalTime.1', rate: 1, value: 0 },
          },
        })),
      },
    }),
    at: 'tracks.markers[1]',
  },
};

describe('a bad entry costs itself alone', () => {
  it.each(Object.entries(FILES))('in %s', (_, { text, at, fileName }) => {
    const file = read(text, fileName);
    expect(names(file)).toEqual(['first', 'last']);
    expect(lost(file)).toEqual([at]);
  });

  it('and where no entry is well, the first is named', () => {
    expect(() => read('time,name\nsoon,x\nlater,y')).toThrow(/Line 2: “soon” is no time/);
    expect(() => read('WEBVTT\n\nno timing')).toThrow(/Line 3/);
  });

  it('a clip’s name goes with the event that cannot be read, and to no other', () => {
    const file = read(`TITLE: x
001  AX       V     C        01:00:00:00 01:00:10:00 01:00:00:00 01:00:10:00
* FROM CLIP NAME: one.mov
002  AX       V     C        01:00:00:00 01:00:10:00 01:00:10:99 01:00:20:00
* FROM CLIP NAME: two.mov
`);
    expect(names(file)).toEqual(['one.mov']);
  });
});

describe('tables', () => {
  it('are known by their heads, whatever these are called, or by the name of the file', () => {
    const text = 'When,Title,Colour\n0:05,Start,green\n1:10,Keel,red\n';
    expect(read(text)).toMatchObject({ format: 'csv', markers: [{ colour: 'green' }, { colour: 'red' }] });
    expect(() => read('Foo,Bar\n0:05,Start\n', 'markers.csv')).toThrow(/no column is headed/);
    expect(read('1:10 Keel, then oak\n2:20 Time, and tide').format).toBe('text');
  });

  it('may have line ends in a cell, and later lines keep their number', () => {
    const file = read('time,name,note\n1,first,"two\nlines"\nsoon,bad,\n30,last,\n');
    expect(lost(file)).toEqual(['line 4']);
  });
});

describe('the times in a description', () => {
  it('are none inside a link', () => {
    const file = read('0:00 Start\nsee https://example.org/1:23\nor www.example.org/2:34\n1:00/2 no\nKeel 3:45\n');
    expect(file.markers.map(({ time, name }) => [time.num, name])).toEqual([
      [0, 'Start'],
      [225, 'Keel'],
    ]);
  });

  it('may stand at either end, in brackets, with or without a sign between', () => {
    const lines = [
      '0:00 A',
      '[0:10] B',
      '(0:20) C',
      '0:30 - D',
      'E 0:40',
      'F (0:50)',
      'G - 1:00',
      'H: 1:10',
      '• 1:20 I',
    ];
    expect(names(read(lines.join('\n')))).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I']);
  });
});

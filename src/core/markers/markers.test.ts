import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fraction, rate } from '../time';
import { readEdl } from './edl';
import { MarkerFileError } from './marker';
import { decodeText, readMarkerFile } from './read';
import { readWebvtt } from './webvtt';

const EDL = `TITLE: keel
FCM: NON-DROP FRAME

001  AX       V     C        00:00:00:00 00:00:20:00 01:00:00:00 01:00:20:00
* FROM CLIP NAME: bench.mov
* LOC: 01:00:00:00 GREEN   Why a scarf joint
* LOC: 01:00:04:05 RED     replace shot
002  AX       V     C        00:00:00:00 00:00:10:00 01:00:20:00 01:00:30:00
* LOC: 01:00:20:12 GREEN   First cut
`;

const bytes = (text: string) => new TextEncoder().encode(text);

describe('edit decision lists', () => {
  it('give their locators, counted from the first record time', () => {
    const file = readEdl(EDL, { rate: rate(25) });
    expect(file.startFrame).toBe(90000);
    expect(file.markers.map(({ time, colour, name }) => ({ time, colour, name }))).toEqual([
      { time: fraction(0), colour: 'green', name: 'Why a scarf joint' },
      { time: fraction(105, 25), colour: 'red', name: 'replace shot' },
      { time: fraction(512, 25), colour: 'green', name: 'First cut' },
    ]);
  });

  it('count in drop-frame where the FCM line says so', () => {
    const text = EDL.replace('NON-DROP', 'DROP').replaceAll('01:00:20:12', '01:01:00;02');
    const file = readEdl(text, { rate: rate(30000, 1001) });
    expect(file.rate?.dropFrame).toBe(true);
    expect(file.markers[2]?.time).toEqual(fraction(1800 * 1001, 30000));
  });

  it('offer clip names where there are no locators', () => {
    const file = readEdl(EDL.replace(/\* LOC.*\n/g, ''), { rate: rate(25) });
    expect(file.markers.map((marker) => [marker.name, marker.on])).toEqual([['bench.mov', 'clip']]);
    expect(file.findings).toHaveLength(1);
  });

  it('keep a locator that lies before the first event where it is, and say so', () => {
    const file = readEdl(`${EDL}* LOC: 00:59:00:00 GREEN too early\n`, { rate: rate(25) });
    expect(file.markers.map((each) => each.time.num < 0)).toEqual([false, false, false, true]);
    expect(file.findings[0]?.what).toContain('too early');
  });

  it('name the line that cannot be read', () => {
    const broken = EDL.replace('01:00:04:05', '01:00:04:25');
    const lost = (text: string) =>
      readEdl(text, { rate: rate(25) }).findings.filter(({ done }) => done === 'left it out');
    expect(lost(broken)).toEqual([{ at: 'line 7', what: expect.stringContaining('frame 25'), done: 'left it out' }]);
    expect(lost(EDL.replace('01:00:20:00 01:00:30:00', '01:00:20:00'))[0]?.at).toBe('line 8');
    expect(() => readEdl('hello\nworld')).toThrow(MarkerFileError);
  });
});

describe('WebVTT chapters', () => {
  it('give each cue as a marker with its exact time', () => {
    const file = readWebvtt(
      'WEBVTT\n\nNOTE by the edit\n\none\n00:00.000 --> 00:20.500\nOpening &amp; <i>tools</i>\n\n01:00:00.040 --> 01:00:09.000 align:start\nLater',
    );
    expect(file.markers.map(({ time, length, name }) => ({ time, length, name }))).toEqual([
      { time: fraction(0), length: fraction(41, 2), name: 'Opening & tools' },
      { time: fraction(90001, 25), length: fraction(224, 25), name: 'Later' },
    ]);
  });

  it('name the line that cannot be read', () => {
    expect(() => readWebvtt('WEBVTT\n\n00:00.000 --> 00:61.000\nx')).toThrow(/Line 3/);
    expect(() => readWebvtt('WEBVTT\n\nno timing here')).toThrow(/Line 3/);
    expect(() => readWebvtt('WEBVTT\n\n00:09.000 --> 00:01.000\nx')).toThrow(/Line 3.*ends before/);
    expect(() => readWebvtt('hello')).toThrow(/Line 1/);
  });
});

describe('reading a marker file', () => {
  it('tells the format by its contents', () => {
    expect(readMarkerFile(bytes('\ufeffWEBVTT\n'), { rate: rate(25) }).format).toBe('webvtt');
    expect(readMarkerFile(bytes(EDL), { rate: rate(25) }).format).toBe('edl');
    expect(() => readMarkerFile(bytes('  '), { rate: rate(25) })).toThrow(/empty/);
  });

  it('takes UTF-16 by its mark, and Latin-1 where it is no UTF-8', () => {
    expect(decodeText(new Uint8Array([0xff, 0xfe, 0x41, 0]))).toContain('A');
    expect(decodeText(new Uint8Array([0xe9]))).toBe('é');
  });

  it('never fails in another way than by a finding of its own', () => {
    const lines = fc.array(
      fc.oneof(fc.string(), fc.constantFrom(...EDL.split('\n'), 'WEBVTT', '00:00.000 --> 00:01.000', '')),
    );
    fc.assert(
      fc.property(lines, (all) => {
        try {
          readMarkerFile(bytes(all.join('\n')), { rate: rate(30000, 1001, true) });
        } catch (error) {
          expect(error).toBeInstanceOf(MarkerFileError);
        }
      }),
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CutFacts, CutMeasures, CutSpan } from '../delivery';
import { fraction, toNumber } from '../time';
import { LEVELS, type PreflightInput } from './finding';
import { preflight } from './preflight';
import { isPutRight, levelsAt, momentsAround, remedyOffer, withRemedy } from './remedy';
import { lengthWords } from './said';
import { openWarnings, reasonFor } from './waved';

const seconds = (value: number) => fraction(Math.round(value * 1000), 1000);
const span = (from: number, to: number): CutSpan => ({ from: seconds(from), to: seconds(to) });

const FACTS: CutFacts = {
  container: 'mp4',
  duration: seconds(60),
  size: 1e7,
  bitRate: 1e6,
  video: {
    ...{ codec: 'h264', profile: 'High', width: 1920, height: 1080, rate: fraction(25), pixelFormat: 'yuv420p' },
    bitRate: 1e6,
  },
  audio: { codec: 'aac', sampleRate: 48_000, channels: 2, bitRate: 128_000 },
};

interface Found {
  black?: CutSpan[];
  frozen?: CutSpan[];
  silent?: CutSpan[];
  pictureEnds?: number;
  soundEnds?: number;
  sound?: Partial<NonNullable<CutMeasures['sound']>>;
}

const measured = ({ black = [], frozen = [], silent = [], pictureEnds = 60, soundEnds = 60, sound }: Found) =>
  ({
    ...{ loudness: { step: 100, tenths: [] }, shots: [] },
    picture: { end: seconds(pictureEnds), varies: false, black, frozen },
    sound: {
      ...{ end: seconds(soundEnds), integratedLufs: -16, rangeLu: 5, truePeakDbtp: -3, clippedSamples: 0 },
      ...{ channels: [1, 2].map(() => ({ meanDb: -20, peakDb: -4 })), together: 0.8, silent },
      ...sound,
    },
  }) satisfies CutMeasures;

const rules = (found: Found, more: Partial<PreflightInput> = {}) =>
  preflight({ facts: FACTS, measures: measured(found), sites: [], ...more }).map(({ rule }) => rule);
const first = (found: Found, more: Partial<PreflightInput> = {}) =>
  preflight({ facts: FACTS, measures: measured(found), sites: [], ...more })[0];

describe('what is found in a file', () => {
  it.each<[name: string, found: Found, rule: string[]]>([
    ['nothing', {}, []],
    ['black at the end', { black: [span(57, 60)], silent: [span(57, 60)] }, ['black at the end']],
    ['a fade to black', { black: [span(59.5, 60)] }, []],
    ['black to a few frames before the end', { black: [span(57, 59.9)] }, ['black at the end']],
    ['black at the start', { black: [span(0, 2)] }, ['black at the start']],
    ['black between', { black: [span(20, 23)] }, ['black between']],
    ['a cut to black', { black: [span(20, 20.8)] }, []],
    ['all black', { black: [span(0, 60)] }, ['black']],
    ['a held last picture', { frozen: [span(55, 60)] }, ['frozen at the end']],
    ['a slide in between', { frozen: [span(20, 40)] }, []],
    ['black, which is frozen, too', { frozen: [span(56, 60)], black: [span(56, 60)] }, ['black at the end']],
    ['silence at the end', { silent: [span(55, 60)] }, ['silent at the end']],
    ['silence throughout', { silent: [span(0, 60)] }, ['silent']],
    ['a pause', { silent: [span(20, 26)] }, []],
    ['sound after the picture', { pictureEnds: 57, soundEnds: 60 }, ['sound after the picture']],
    ['sound that ends half a second after the picture', { pictureEnds: 59.5, soundEnds: 60 }, []],
    ['sound that ends a little more after it', { pictureEnds: 59.499, soundEnds: 60 }, ['sound after the picture']],
    ['picture after the sound', { soundEnds: 55 }, ['picture after the sound']],
    ['a second of picture after the sound', { soundEnds: 59 }, []],
    ['a little more than a second', { soundEnds: 58.999 }, ['picture after the sound']],
    ['no more than a second that is not there', { pictureEnds: 59, soundEnds: 59 }, []],
    ['a little more that is not there', { pictureEnds: 58.999, soundEnds: 58.999 }, ['breaks off']],
    ['an end that is not there', { pictureEnds: 40, soundEnds: 40 }, ['breaks off']],
    ['a quiet one', { sound: { integratedLufs: -35 } }, ['too quiet']],
    ['a loud one', { sound: { integratedLufs: -6 } }, ['too loud']],
    ['no loudness to speak of', { sound: { integratedLufs: undefined } }, []],
    [
      'a clipped one, whose peaks need no word of their own',
      { sound: { clippedSamples: 900, truePeakDbtp: 1 } },
      ['clipped'],
    ],
    ['a high peak', { sound: { truePeakDbtp: -0.2 } }, ['true peak']],
    [
      'a dead side',
      {
        sound: {
          channels: [
            { meanDb: -20, peakDb: -4 },
            { meanDb: -91, peakDb: -90 },
          ],
        },
      },
      ['one side'],
    ],
    ['an inverted side', { sound: { together: -0.97 } }, ['out of phase']],
  ])('is: %s', (_, found, rule) => expect(rules(found)).toEqual(rule));

  it('says how long, where, and whether the sound goes on', () => {
    expect(first({ black: [span(56.8, 60)] })).toMatchObject({
      what: '3.2 s of black at the end, while the sound goes on',
      span: span(56.8, 60),
      level: 'warns',
    });
    expect(first({ black: [span(56.8, 60)], soundEnds: 56.8 })?.what).toBe('3.2 s of black at the end');
    expect(first({ black: [span(20, 23)] })?.what).toBe('3.0 s of black at 0:20');
    expect([9.94, 75, 119.6, 245].map((value) => lengthWords(seconds(value)))).toEqual([
      ...['9.9 s', '75 s', '2 min 0 s', '4 min 5 s'],
    ]);
  });

  it('holds the length against in and out of the edit, to two frames', () => {
    const edit = (length: number) => ({ edit: { from: seconds(3600), to: seconds(3600 + length) } });
    expect(rules({}, edit(60))).toEqual([]);
    expect(rules({}, edit(59.93))).toEqual([]);
    expect(first({}, edit(56.8))?.what).toBe('The file is 3.2 s longer than the edit from in to out');
    expect(first({}, edit(61))?.what).toBe('The file is 1.0 s shorter than the edit from in to out');
  });

  it('is judged by the facts alone until it is measured', () => {
    const alone = (facts: Partial<CutFacts>) =>
      preflight({ facts: { ...FACTS, ...facts }, measures: undefined, sites: [] }).map(({ rule }) => rule);
    expect(alone({})).toEqual([]);
    expect(alone({ audio: undefined })).toEqual(['no sound']);
    const format = {
      ...{ level: '4', bits: 10, pixelShape: fraction(4, 3), turned: 90, interlaced: true, hdr: 'PQ' as const },
      ...{ primaries: '', transfer: '', matrix: '', range: '', sphere: 'equirectangular' },
    };
    const odd = alone({ video: { ...FACTS.video, more: format } });
    expect(odd.sort()).toEqual(['HDR', 'interlaced', 'pixel shape', 'sphere of another shape', 'turned']);
  });

  it('stops where a site does not take it, and only then', () => {
    const file = {
      ...{ containers: ['mp4'], videoCodecs: ['h264'], largest: 1e6, longest: 30, mostPixels: undefined, mostBits: 8 },
    };
    const all = preflight({
      facts: FACTS,
      measures: measured({ black: [span(57, 60)] }),
      sites: [{ name: 'S', file }],
    });
    expect(all.map(({ level, site }) => [level, site])).toEqual([
      ['stops', 'S'],
      ['stops', 'S'],
      ['warns', undefined],
    ]);
  });

  it('never lies outside the file, and has the worst first', () => {
    const spans = fc
      .array(fc.tuple(fc.integer({ min: 0, max: 60_000 }), fc.integer({ min: 0, max: 60_000 })), { maxLength: 6 })
      .map((pairs) =>
        pairs.filter(([a, b]) => a !== b).map(([a, b]) => span(Math.min(a, b) / 1000, Math.max(a, b) / 1000)),
      );
    const end = fc.integer({ min: 1, max: 60_000 }).map((value) => value / 1000);
    fc.assert(
      fc.property(spans, spans, spans, end, end, (black, frozen, silent, pictureEnds, soundEnds) => {
        const all = preflight({
          ...{ facts: FACTS, sites: [] },
          measures: measured({ black, frozen, silent, pictureEnds, soundEnds }),
        });
        const levels = all.map(({ level }) => LEVELS.indexOf(level));
        expect(levels).toEqual([...levels].sort());
        for (const { span: at } of all) {
          if (!at) continue;
          expect(toNumber(at.from)).toBeGreaterThanOrEqual(0);
          expect(toNumber(at.to)).toBeLessThanOrEqual(60);
          expect(toNumber(at.from)).toBeLessThan(toNumber(at.to));
        }
      }),
    );
  });
});

describe('a finding that is meant', () => {
  it('warns no more in this file, and again in another one', () => {
    const fileFindings = preflight({ facts: FACTS, measures: measured({ black: [span(57, 60)] }), sites: [] });
    const wavedThrough = [{ rule: 'black at the end', cutId: 'a', reason: 'a pause' }];
    const of = (id: string) => ({ fileFindings, wavedThrough, cut: { id }, remedies: {} });
    expect(openWarnings(of('a'))).toEqual([]);
    expect(reasonFor(of('a'), 'black at the end')).toBe('a pause');
    expect(openWarnings(of('b'))).toHaveLength(1);
    expect(reasonFor(of('b'), 'black at the end')).toBeUndefined();
  });
});

describe('a finding that is put right', () => {
  const black = span(57, 60);
  const finding = { rule: 'black at the end', span: black };
  const offer = remedyOffer(finding);

  it.each([
    [{ way: 'end', at: seconds(57) }, { to: seconds(57) }],
    [{ way: 'start', at: seconds(2) }, { from: seconds(2) }],
    [{ way: 'loudness' }, { loudness: -16 }],
    [{ way: 'index' }, { indexFirst: true }],
    [{ way: 'sphere' }, { sphere: true }],
    [{ way: 'convert' }, { convert: true }],
  ] as const)('%o becomes %o, beside what was chosen before', (way, remedies) => {
    expect(withRemedy({ silence: [span(1, 2)] }, way, -16)).toEqual({ silence: [span(1, 2)], ...remedies });
  });

  it('warns no more where what goes out has it no more, and again where too little is left off', () => {
    if (!offer) throw new Error('no remedy');
    const remedies = withRemedy({ loudness: -14 }, offer, -14);
    expect(remedies).toEqual({ loudness: -14, to: black.from });
    expect(isPutRight(finding, remedies)).toBe(true);
    expect(isPutRight(finding, { to: fraction(58) })).toBe(false);
    const fileFindings = preflight({ facts: FACTS, measures: measured({ black: [black] }), sites: [] });
    const of = { fileFindings, wavedThrough: [], cut: { id: 'a' } };
    expect(openWarnings({ ...of, remedies })).toHaveLength(openWarnings({ ...of, remedies: {} }).length - 1);
  });

  it('is looked at before: the last frame that stays, and the first that goes', () => {
    if (!offer) throw new Error('no remedy');
    expect(momentsAround(offer, FACTS)).toEqual({ stays: fraction(57 * 25 - 1, 25), goes: fraction(57) });
    expect(momentsAround({ way: 'start', at: fraction(2) }, FACTS)).toEqual({
      stays: fraction(2),
      goes: fraction(2 * 25 - 1, 25),
    });
  });

  it('tells the level before and after, and whether peaks have to be held (EBU R 128: at most −1 dBTP)', () => {
    const quiet = measured({ sound: { integratedLufs: -30, truePeakDbtp: -18 } });
    expect(levelsAt(quiet, -23)).toMatchObject({ before: -30, after: -23, peakAfter: -11, limited: false });
    expect(levelsAt(quiet, -8)).toMatchObject({ peakAfter: -1, limited: true });
  });
});

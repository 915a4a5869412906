import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SITE_PROFILES } from '@/sites/profiles';
import type { CutFacts } from '../delivery';
import { reasonsNotTaken } from '../delivery';
import { fraction } from '../time';
import { demandOf } from './demand';
import { linesOf } from './frame-size';
import { planRenditions } from './plan';
import { READY_SETS } from './ready-sets';
import { factsOfRecipe, workOf } from './recipe';
import { settingsTrouble } from './settings';
import { sizeOfRecipe } from './size-of-recipe';

const facts = (over: Partial<Omit<CutFacts, 'video'>> & { video?: Partial<CutFacts['video']> } = {}): CutFacts => ({
  container: 'mp4',
  duration: fraction(60),
  size: 120_000_000,
  bitRate: 16_000_000,
  audio: { codec: 'aac', sampleRate: 48_000, channels: 2, bitRate: 192_000 },
  ...over,
  video: {
    codec: 'h264',
    profile: 'High',
    width: 1920,
    height: 1080,
    rate: fraction(25),
    pixelFormat: 'yuv420p',
    bitRate: 15_800_000,
    ...over.video,
  },
});
const cut = (over?: Parameters<typeof facts>[0]) => ({ facts: facts(over), measures: undefined });
const sites = Object.values(SITE_PROFILES);
const site = (id: string) => {
  const found = sites.find((each) => each.id === id);
  if (!found) throw new Error(id);
  return found;
};
const set = (id: string) => READY_SETS.find((each) => each.id === id);
const to = (id: string, ofSet?: string) => ({
  key: `${id} ${ofSet ?? ''}`,
  site: site(id),
  set: ofSet ? set(ofSet) : undefined,
  remedies: {},
});

describe('which file goes where', () => {
  it('is the cut as it is wherever a site takes it and nobody asks for more', () => {
    const { renditions, refused } = planRenditions(cut(), [to('lanternfold'), to('fieldgate'), to('stallmarket')]);
    expect(renditions).toHaveLength(1);
    expect(renditions[0]).toMatchObject({ work: 'as it is', recipe: undefined });
    expect(refused.size).toBe(0);
  });

  it('is one file for all that ask for the same', () => {
    const { renditions } = planRenditions(cut(), [
      to('lanternfold', 'talk'),
      to('fieldgate', 'talk'),
      to('stallmarket', 'talk'),
    ]);
    expect(renditions).toHaveLength(1);
    expect(renditions[0]?.for).toHaveLength(3);
    expect(renditions[0]?.recipe).toMatchObject({
      container: 'mp4',
      picture: { codec: 'h264', width: 1280, height: 720 },
    });
  });

  it('is encoded for the one site that needs it, and says why', () => {
    const { renditions } = planRenditions(cut({ video: { width: 3840, height: 2160 } }), [
      to('lanternfold'),
      to('stallmarket'),
    ]);
    expect(renditions.map(({ work }) => work)).toEqual(['as it is', 'encode']);
    expect(renditions[1]?.for[0]?.why).toEqual(['The picture is 3840×2160; Stallmarket takes at most 1920×1080']);
    expect(renditions[1]?.recipe).toMatchObject({ picture: { width: 1920, height: 1080 } });
  });

  it('is kept where it is already what a set asks for', () => {
    const audio = { codec: 'aac', sampleRate: 48_000, channels: 2, bitRate: 128_000 };
    const small = cut({
      audio,
      size: 15_000_000,
      bitRate: 2_000_000,
      video: { width: 1280, height: 720, bitRate: 1_800_000 },
    });
    const { renditions } = planRenditions(small, [to('lanternfold', 'talk')]);
    expect(renditions[0]).toMatchObject({
      work: 'as it is',
      for: [{ why: ['the file is already what “Talk” asks for'] }],
    });
  });

  it('is refused where it is too long, or would look bad, with what comes nearest', () => {
    const long = planRenditions(cut({ duration: fraction(121) }), [to('pipwire')]);
    expect(long.refused.get('pipwire ')).toEqual({
      refused: 'The video lasts 121 s; Pipwire takes 120 s',
      nearest: 'Cut it to 120 s, or untick Pipwire',
    });
    const shop = { ...site('stallmarket'), file: { ...site('stallmarket').file, largest: 20_000_000 } };
    const hours = demandOf(cut({ duration: fraction(36_000) }), { site: shop, set: undefined, remedies: {} });
    expect(hours).toMatchObject({
      refused: expect.stringMatching(/^It would look bad/),
      nearest: expect.stringMatching(/^It can have up to \d+ s there$/),
    });
    const exactly = {
      ...READY_SETS[0],
      settings: { ...READY_SETS[0]?.settings, size: { way: 'exactly', lines: 2160 } },
    };
    expect(demandOf(cut(), { site: site('lanternfold'), set: exactly as never, remedies: {} })).toEqual({
      refused: '“Talk” asks for 2160 lines; the file has 1080',
      nearest: 'Ask for at most 1080',
    });
  });

  it('is one file for all, though some could keep the sound of another one', () => {
    const sound = { codec: 'pcm_s24le', sampleRate: 48_000, channels: 2, bitRate: 2_304_000 };
    const prores = cut({ container: 'mov', audio: sound, video: { codec: 'prores' } });
    const all = [to('lanternfold'), to('fieldgate'), to('pipwire'), to('stallmarket')];
    const { renditions } = planRenditions(prores, all);
    expect(renditions).toMatchObject([{ work: 'encode', recipe: { container: 'mp4', sound: { codec: 'aac' } } }]);
    expect(renditions[0]?.for).toHaveLength(4);
    // Nothing of the picture is touched where only the container is another.
    const copied = planRenditions(cut({ container: 'mov', audio: sound }), all).renditions;
    expect(copied.map(({ work }) => work)).toEqual(['as it is', 'sound']);
  });

  it('has one frame rate where that of the cut varies, and whole frames where it is interlaced', () => {
    const uneven = { picture: { end: fraction(60), varies: true, black: [], frozen: [] }, shots: [] };
    const measures = { ...uneven, loudness: { step: 100, tenths: [] } };
    const small = { ...cut({ size: 12_000_000, video: { width: 1280, height: 720, bitRate: 1_500_000 } }), measures };
    expect(planRenditions(small, [to('lanternfold')]).renditions[0]?.work).toBe('as it is');
    const { renditions } = planRenditions(small, [to('lanternfold', 'talk')]);
    expect(renditions[0]).toMatchObject({ work: 'encode', recipe: { picture: { rate: fraction(25) } } });
    expect(renditions[0]?.for[0]?.why).toContain('its frame rate varies');
  });

  it('uses a file that is there already', () => {
    const both = [to('stallmarket')];
    const wide = cut({ video: { codec: 'prores' }, container: 'mov' });
    const demand = demandOf(wide, { ...both[0] } as never);
    if ('refused' in demand) throw new Error(demand.refused);
    const second = demand.recipes[1];
    const { renditions } = planRenditions(wide, both, new Set([JSON.stringify(second)]));
    expect(renditions).toHaveLength(1);
  });

  const cuts = fc.record({
    container: fc.constantFrom('mp4', 'mov', 'mkv', 'webm', 'avi'),
    codec: fc.constantFrom('h264', 'hevc', 'vp9', 'av1', 'prores'),
    sound: fc.constantFrom('aac', 'opus', 'pcm_s24le', undefined),
    lines: fc.constantFrom(360, 720, 1080, 1440, 2160),
    upright: fc.boolean(),
    seconds: fc.integer({ min: 1, max: 20_000 }),
    megabits: fc.integer({ min: 1, max: 200 }),
  });
  const destinations = fc.uniqueArray(
    fc.record({ site: fc.constantFrom(...sites), set: fc.constantFrom(undefined, ...READY_SETS) }),
    { minLength: 1, maxLength: 8, selector: (each) => `${each.site.id} ${each.set?.id}` },
  );

  it('is always one that its site takes, whatever the cut; and nobody is left out', () => {
    fc.assert(
      fc.property(cuts, destinations, (shape, asked) => {
        const [wide, high] = [Math.round((shape.lines * 16) / 9 / 2) * 2, shape.lines];
        const [width, height] = shape.upright ? [high, wide] : [wide, high];
        const bits = shape.megabits * 1_000_000;
        const of = cut({
          container: shape.container,
          duration: fraction(shape.seconds),
          size: Math.round((bits * shape.seconds) / 8),
          bitRate: bits,
          audio: shape.sound ? { codec: shape.sound, sampleRate: 48_000, channels: 2, bitRate: 192_000 } : undefined,
          video: { codec: shape.codec, width, height, bitRate: bits },
        });
        const all = asked.map((each, index) => ({ ...each, key: String(index), remedies: {} }));
        const { renditions, refused } = planRenditions(of, all);
        const served = renditions.flatMap((each) => each.for.map(({ key }) => key));
        expect([...served, ...refused.keys()].sort()).toEqual(all.map(({ key }) => key).sort());
        for (const { recipe, for: goesTo, work } of renditions) {
          expect(workOf(recipe)).toBe(work);
          const size = recipe ? sizeOfRecipe(recipe, of.facts).likely : of.facts.size;
          const is = recipe ? factsOfRecipe(recipe, of.facts, size) : of.facts;
          for (const { key } of goesTo) {
            const destination = all[Number(key)];
            if (!destination) throw new Error(key);
            expect(reasonsNotTaken(is, destination.site)).toEqual([]);
            expect(linesOf(is.video)).toBeLessThanOrEqual(linesOf(of.facts.video) + 1);
          }
        }
      }),
    );
  });
});

describe('ready sets', () => {
  it('can be met, with the figures that people go by (common practice, no source)', () => {
    for (const { settings } of READY_SETS) expect(settingsTrouble(settings)).toBeUndefined();
    expect(set('talk')?.settings).toMatchObject({ size: { way: 'at most', lines: 720 }, control: { kilobits: 2000 } });
    const action = set('action')?.settings.control;
    expect(action).toMatchObject({ way: 'variable' });
    if (action?.way !== 'variable') return;
    expect(action.kilobits).toBeGreaterThanOrEqual(22_000);
    expect(action.ceiling).toBeLessThanOrEqual(30_000);
  });
});

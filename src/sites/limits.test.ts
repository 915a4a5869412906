import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pictureFindings } from '@/core/drop';
import { beforeFold } from '@/core/fitting';
import { partFindings } from '@/core/parts';
import { type TextUnit, textLength } from '@/core/words';
import { fieldgateProfile } from '@/sites/fieldgate/profile';
import { lanternfoldProfile } from '@/sites/lanternfold/profile';
import { pipwireProfile } from '@/sites/pipwire/profile';
import { SITE_PROFILES } from '@/sites/profiles';
import { stallmarketProfile } from '@/sites/stallmarket/profile';
import { checkCover, FOLD as fieldgateFold, workShape } from '../../stand-ins/fieldgate/rules';
import {
  checkThumbnail,
  FOLD as lanternfoldFold,
  wordsShape as lanternfoldShape,
} from '../../stand-ins/lanternfold/rules';
import { wordsShape as pipwireShape } from '../../stand-ins/pipwire/rules';
import { foldAt } from '../../stand-ins/shared/folded';
import { checkPicture, listingShape, FOLD as stallmarketFold } from '../../stand-ins/stallmarket/rules';

/** A piece of text, each long in another way of counting. */
const pieces = fc.constantFrom('a', 'ö', '🛶', '👩‍👩‍👧', 'e\u0301', '\u0915\u094d\u0937', ' ', '한');
/** A text of about so many pieces, so that some lie just below a limit and some just above. */
const around = (most: number) =>
  fc
    .tuple(fc.array(pieces, { minLength: 1, maxLength: 6 }), fc.integer({ min: Math.floor(most / 8), max: most + 4 }))
    .map(([few, count]) => `x${Array.from({ length: count }, (_, n) => few[n % few.length]).join('')}x`);

const SOUND = {
  title: 'Keel',
  text: 'Text',
  tags: [] as string[],
};

type Given = Partial<typeof SOUND>;
const SITES = [
  {
    profile: lanternfoldProfile,
    theirs: ({ title, text, tags }: Given) => lanternfoldShape.isValid({ title, description: text, tags }),
  },
  {
    profile: fieldgateProfile,
    theirs: ({ title, text, tags }: Given) => workShape.isValid({ headline: title, about: text, keywords: tags }),
  },
  { profile: pipwireProfile, theirs: ({ text }: Given) => pipwireShape.isValid({ words: text ?? 'Text' }) },
  { profile: stallmarketProfile, theirs: ({ title, text }: Given) => listingShape.isValid({ title, text }) },
];

describe.each(SITES.map((site) => [site.profile.name, site] as const))('what goes to %s', (_, { profile, theirs }) => {
  const ours = (given: Given) => partFindings({ ...SOUND, ...given }, profile).length === 0;

  it('is let through by its profile where the site itself takes it, and only there: texts', async () => {
    const most = profile.text?.most ?? 0;
    await fc.assert(
      fc.asyncProperty(around(Math.min(most, 300)), fc.integer({ min: -2, max: 2 }), async (text, over) => {
        // Filled up to the limit by the site's own count, and a little below or beyond.
        const room = most - textLength(text, profile.text?.unit ?? 'utf16') + over;
        const full = text + 'y'.repeat(Math.max(0, room));
        expect(ours({ text: full })).toBe(await theirs({ text: full }));
      }),
      { numRuns: 60 },
    );
  });

  it('and titles', async () => {
    if (!profile.title) return;
    await fc.assert(
      fc.asyncProperty(around(profile.title.most), async (title) => {
        expect(ours({ title })).toBe(await theirs({ title }));
      }),
      { numRuns: 100 },
    );
    expect([ours({ title: '' }), await theirs({ title: '' })]).toEqual([false, false]);
  });

  it('and tags', async () => {
    if (typeof profile.tags !== 'object') return;
    const tag = fc.array(pieces, { minLength: 1, maxLength: 34 }).map((all) => `x${all.join('')}`);
    await fc.assert(
      fc.asyncProperty(fc.array(tag, { maxLength: 34 }), async (tags) => {
        expect(ours({ tags })).toBe(await theirs({ tags }));
      }),
      { numRuns: 100 },
    );
  });

  it('and signs and links', async () => {
    for (const text of ['a < b', 'a > b', 'https://yard.example', 'www.yard.example/x', 'yard.example', '& " \' `']) {
      expect([text, ours({ text })]).toEqual([text, await theirs({ text })]);
    }
  });
});

describe('the fold', () => {
  it.each([
    ['lanternfold', lanternfoldFold],
    ['fieldgate', fieldgateFold],
    ['stallmarket', stallmarketFold],
  ])('of %s is where the Sheet says', (id, rule) => {
    const fold = SITE_PROFILES[id]?.fold;
    if (!fold) throw new Error(`${id} folds nothing`);
    const lines = fc.array(around(120), { maxLength: 7 }).map((all) => all.join('\n'));
    fc.assert(
      fc.property(lines, (text) => {
        expect(beforeFold(text, fold)).toBe(text.slice(0, foldAt(text, rule)));
      }),
      { numRuns: 300 },
    );
  });
});

describe('pictures', () => {
  const CHECKS = {
    lanternfold: checkThumbnail,
    fieldgate: checkCover({ width: 1920, height: 1080 }),
    stallmarket: checkPicture,
  };
  const video = { codec: '', profile: '', width: 1920, height: 1080, rate: { num: 25, den: 1 } };
  const facts = { video: { ...video, pixelFormat: '', bitRate: 1 } } as Parameters<typeof pictureFindings>[2];

  it.each(Object.entries(CHECKS))('are let through for %s where it takes them', (id, check) => {
    const profile = SITE_PROFILES[id];
    if (!profile) throw new Error(`There is no site ${id}`);
    const width = fc.integer({ min: 600, max: 4000 });
    const lines = fc.constantFrom(0, 1, 2, 40);
    const size = fc.constantFrom(1000, 3_000_000, 3_000_001, 4_999_999, 5_000_000, 8_000_000, 8_000_001);
    fc.assert(
      fc.property(width, lines, size, fc.constantFrom('jpeg', 'png', 'webp', 'gif'), (wide, more, bytes, format) => {
        const height = Math.round((wide * 9) / 16) + more;
        const given = { width: wide, height, size: bytes, type: `image/${format}` };
        const refused = (() => {
          try {
            check({ format, width: wide, height }, bytes);
            return false;
          } catch {
            return true;
          }
        })();
        const found = pictureFindings(given, profile, facts);
        // Nothing that we let through may be refused; what we refuse, a site may be more lenient with.
        if (refused) expect(found).not.toEqual([]);
      }),
      { numRuns: 400 },
    );
  });
});

describe('ways of counting', () => {
  it.each<[TextUnit, string, number]>([
    // UAX #29, table 1a: a base with its mark, a Hangul syllable of three jamo, a family joined by ZWJ, a flag.
    ['grapheme', 'e\u0301', 1],
    ['grapheme', '\u1112\u1161\u11ab', 1],
    ['grapheme', '👩‍👩‍👧', 1],
    ['grapheme', '🇳🇴🇸🇪', 2],
    ['grapheme', '\r\n', 1],
    // The Unicode Standard, table 3-6: bytes of UTF-8 by range.
    ['utf8', '\u007f', 1],
    ['utf8', '\u0080', 2],
    ['utf8', '\u07ff', 2],
    ['utf8', '\u0800', 3],
    ['utf8', '\uffff', 3],
    ['utf8', '\u{10000}', 4],
    // The Unicode Standard, table 3-5: surrogates from U+10000 on.
    ['utf16', '\uffff', 1],
    ['utf16', '\u{10000}', 2],
    ['codePoint', '\u{10000}', 1],
  ])('%s of %j is %d', (unit, text, length) => {
    expect(textLength(text, unit)).toBe(length);
  });
});

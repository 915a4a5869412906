import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SiteRules } from '../delivery';
import { fraction } from '../time';
import { TemplateError, type TextUnit, textLength } from '../words';
import { type FitInput, fitTags, fitToSite } from './fit';
import { searchFindings } from './search-findings';

const SITE: SiteRules = {
  name: 'Fold',
  file: { containers: [], videoCodecs: [], largest: 1, longest: undefined, mostPixels: undefined },
  title: { most: 40, unit: 'utf16' },
  text: { most: 400, unit: 'utf16', forbidden: ['<'], links: true },
  tags: { most: 3, mostWithCommas: 30, longest: 12 },
  chapters: { way: 'description', rules: { firstAtZero: true, fewest: 3, shortest: 10 } },
  picture: undefined,
  privacies: {},
  opensItself: false,
  declares: undefined,
  captions: false,
};
const TEMPLATE = `{{summary}}

{{#go.1}}
Gear that we use
{{#links}}
{{label}}: {{url}}
{{/links}}
{{/go.1}}

{{chapters}}

{{#go.2}}
From the yard of {{channel}}.
{{/go.2}}`;

const chapter = (seconds: number, title: string) => ({
  markerId: `${seconds}`,
  time: fraction(seconds),
  title,
  repair: undefined,
});
const INPUT: FitInput = {
  title: 'Steaming the ribs',
  summary: 'An hour an inch in the steam box, then ninety seconds to bend it home.',
  template: TEMPLATE,
  links: [{ label: 'Steam box', url: 'https://yard.example/box' }],
  tags: ['steam bending', 'ribs', 'green oak'],
  chapters: [chapter(0, 'Filling the box'), chapter(24, 'Ninety seconds'), chapter(36, 'What cracked')],
  duration: fraction(60),
  more: { channel: 'Marrow Quay' },
};
const WHOLE = `An hour an inch in the steam box, then ninety seconds to bend it home.

Gear that we use
Steam box: https://yard.example/box

0:00 Filling the box
0:24 Ninety seconds
0:36 What cracked

From the yard of Marrow Quay.`;

const limited = (most: number, unit: TextUnit = 'utf16'): SiteRules => ({
  ...SITE,
  text: { most, unit, forbidden: [], links: true },
});

describe('a text that fits', () => {
  it('is changed in nothing', () => {
    expect(fitToSite(INPUT, SITE)).toMatchObject({ title: 'Steaming the ribs', text: WHOLE, findings: [] });
    expect(fitToSite(INPUT, SITE).leftOut).toEqual(['tag steam bending: longer than 12 characters']);
    expect(fitToSite(INPUT, limited(WHOLE.length)).text).toBe(WHOLE);
  });

  it('lets a section of links vanish where there are none', () => {
    expect(fitToSite({ ...INPUT, links: [], template: '' }, SITE).text).toBe(
      `${INPUT.summary}\n\n0:00 Filling the box\n0:24 Ninety seconds\n0:36 What cracked`,
    );
  });

  it('begins with the title where the site has none, and ends in # words', () => {
    const posts: SiteRules = { ...SITE, title: undefined, chapters: undefined, tags: 'words in the text' };
    const { text, title } = fitToSite({ ...INPUT, template: '{{summary}}', links: [] }, posts);
    expect(title).toBe('');
    expect(text).toBe(`Steaming the ribs\n\n${INPUT.summary}\n\n#steambending #ribs #greenoak`);
  });
});

describe('a text that has no room', () => {
  it('loses the parts that the template names first, in their order, then links, chapters, the summary’s end', () => {
    const steps = [WHOLE.length - 1, 175, 140, 60].map((most) => fitToSite(INPUT, limited(most)));
    const [gear, yard] = [
      'part 1 of the template: “Gear that we use / Steam box: https://yard.example/box”',
      'part 2 of the template: “From the yard of Marrow Quay.”',
    ];
    expect(steps.map(({ leftOut }) => leftOut.filter((each) => !each.startsWith('tag')))).toEqual([
      [gear],
      [gear],
      [gear, yard],
      [gear, yard, 'the chapters', 'the end of the summary: “bend it home.”'],
    ]);
    expect(steps[3]?.text).toBe('An hour an inch in the steam box, then ninety seconds to…');
  });

  it('loses links from the last, each said, where no part may go', () => {
    const links = [1, 2, 3].map((n) => ({ label: `Link ${n}`, url: `https://l.example/${n}` }));
    const { text, leftOut } = fitToSite({ ...INPUT, links, tags: [], chapters: [], template: '' }, limited(110));
    expect(leftOut).toEqual(['link Link 3: https://l.example/3', 'link Link 2: https://l.example/2']);
    expect(text.endsWith('Link 1: https://l.example/1')).toBe(true);
  });

  it('says so where not even one word of it fits', () => {
    const { findings } = fitToSite({ ...INPUT, template: 'A line that never goes\n{{summary}}' }, limited(10));
    expect(findings[0]).toContain('nothing more of it may go');
  });

  it('is never over the limit by the site’s own count, and loses nothing that is not listed', () => {
    const word = fc.constantFrom('keel', 'öl', '🛶', '👩‍👩‍👧', 'https://a.example/x', 'steam-box,');
    const text = fc.array(word, { maxLength: 30 }).map((all) => all.join(' '));
    const links = fc.array(fc.record({ label: word, url: fc.constant('https://l.example/1') }), { maxLength: 4 });
    const units = fc.constantFrom<TextUnit>('utf16', 'codePoint', 'grapheme', 'utf8');
    fc.assert(
      fc.property(text, links, units, fc.integer({ min: 60, max: 500 }), (summary, all, unit, most) => {
        const input = { ...INPUT, summary, links: all };
        const fitted = fitToSite(input, limited(most, unit));
        expect(textLength(fitted.text, unit)).toBeLessThanOrEqual(most);
        const said = fitted.leftOut.join('\n');
        for (const each of summary.split(' ').filter(Boolean)) {
          expect(fitted.text.includes(each) || said.includes(each.replace(/[,-]+$/, ''))).toBe(true);
        }
        if (fitted.leftOut.every((each) => each.startsWith('tag'))) {
          expect(fitToSite(input, limited(100_000, unit)).text).toBe(fitted.text);
        }
        // Whole words only: what is there was there.
        const given = new Set(
          `${summary} ${WHOLE} ${all.map((link) => `${link.label}: ${link.url}`).join(' ')}`.split(/\s+/),
        );
        for (const each of fitted.text
          .replace(/…$|…(?=\n)/gm, '')
          .split(/\s+/)
          .filter(Boolean)) {
          expect(given.has(each) || [...given].some((whole) => whole.replace(/[,;:–—-]+$/, '') === each), each).toBe(
            true,
          );
        }
      }),
    );
  });
});

describe('what keeps a text from being sent', () => {
  it('a blank that was left open, a name that there is not, a sign that is not taken', () => {
    expect(fitToSite({ ...INPUT, more: {} }, SITE).findings).toEqual(['The blank “channel” is left open']);
    expect(fitToSite({ ...INPUT, summary: ' ' }, SITE).findings).toEqual(['The blank “summary” is left open']);
    expect(fitToSite({ ...INPUT, summary: 'a < b' }, SITE).findings[0]).toContain('does not take <');
    expect(fitToSite({ ...INPUT, title: '' }, SITE).findings).toContain('The title is empty');
  });

  it('links where the site takes none', () => {
    const shop: SiteRules = {
      ...SITE,
      chapters: undefined,
      text: { most: 900, unit: 'utf8', forbidden: [], links: false },
    };
    const { findings, leftOut, text } = fitToSite({ ...INPUT, summary: 'See www.yard.example' }, shop);
    expect(findings[0]).toContain('no links');
    expect(leftOut[0]).toContain('https://yard.example/box: Fold takes no links');
    expect(text).not.toContain('https://');
  });

  it('a template that cannot be read, with its place', () => {
    expect(() => fitToSite({ ...INPUT, template: 'Hello {{#links}}' }, SITE)).toThrow(TemplateError);
  });
});

describe('titles and tags', () => {
  it('are shortened at a word, and left out one by one, each said', () => {
    const long = 'Steaming the ribs of the third boat, part two';
    const fitted = fitToSite({ ...INPUT, title: long }, SITE);
    expect(fitted.title).toBe('Steaming the ribs of the third boat…');
    expect(fitted.leftOut[0]).toContain(long);
    const rules = { most: 2, mostWithCommas: 12, longest: 8 };
    expect(fitTags(['one', 'far too long', 'two', 'three'], rules, 'S')).toEqual({
      tags: ['one', 'two'],
      leftOut: ['tag far too long: longer than 8 characters', 'tag three: S takes 2 tags'],
    });
    expect(fitTags(['eight888', 'fivefive'], rules, 'S').leftOut).toEqual([
      'tag fivefive: S takes 12 characters of tags',
    ]);
  });
});

describe('what helps search', () => {
  it('is said, and keeps nothing from being sent', () => {
    const found = searchFindings({
      title: 'MARROW QUAY: STEAMING RIBS',
      text: 'We bend a rib.',
      tags: ['steam box', 'Steambox', 'ribs'],
      channel: 'Marrow Quay',
      earlier: ['Marrow Quay: steaming ribs'],
    });
    expect(found).toEqual([
      'The title is all in capitals',
      'The title repeats the channel’s name',
      'An earlier video has the same title',
      'Words of the title that the text does not use: marrow, quay, steaming',
      'The tags “steam box” and “Steambox” say the same',
    ]);
    expect(searchFindings({ title: 'The rib', text: 'A rib is bent.', tags: ['rib'] })).toEqual([]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SiteRules } from '../delivery';
import { fraction } from '../time';
import { TemplateError, type TextUnit, textLength } from '../words';
import { fitToSite } from './fit';
import { fitTags } from './fit-tags';
import { beforeFold } from './fold';
import { dayInWords } from './names';
import { searchFindings } from './search-findings';
import type { FitInput } from './shapes';

const SITE: SiteRules = {
  name: 'Fold',
  file: { containers: [], videoCodecs: [], largest: 1, longest: undefined, mostPixels: undefined },
  title: { most: 40, unit: 'utf16' },
  text: { most: 400, unit: 'utf16', links: true },
  fold: undefined,
  tags: { most: 3, longest: 12 },
  chapters: { way: 'description', rules: { firstAtZero: true, fewest: 3, shortest: 10 } },
  picture: undefined,
  privacies: {},
  opensItself: false,
  declares: undefined,
  captions: false,
};
const TEMPLATE = `{{summary}}

{{#cut-first}}
Gear that we use
{{#links}}
{{label}}: {{url}}
{{/links}}
{{/cut-first}}

{{chapters}}

{{#cut-second}}
From the yard of {{channel}}.
{{/cut-second}}`;

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
  names: { channel: 'Marrow Quay' },
};
const whatOf = (input: FitInput, site = SITE) => fitToSite(input, site).findings.map(({ what }) => what);
const WHOLE = `An hour an inch in the steam box, then ninety seconds to bend it home.

Gear that we use
Steam box: https://yard.example/box

0:00 Filling the box
0:24 Ninety seconds
0:36 What cracked

From the yard of Marrow Quay.`;

const limited = (most: number, unit: TextUnit = 'utf16'): SiteRules => ({
  ...SITE,
  text: { most, unit, links: true },
});

describe('a text that fits', () => {
  it('has the chapters of a text by hand that has some in it, and adds none to them', () => {
    const text = `0:00 Kettle on\n0:30 Bending\n0:45 Done\n\n${INPUT.summary}`;
    const byHand = fitToSite({ ...INPUT, byHand: { text } }, SITE);
    expect(byHand).toMatchObject({ text, findings: [] });
    expect(byHand.chapters.map(({ title }) => title)).toEqual(['Kettle on', 'Bending', 'Done']);
    const plain = fitToSite({ ...INPUT, byHand: { text: 'Doors at 18:30.' } }, SITE);
    expect(plain.text).toBe('Doors at 18:30.\n\n0:00 Filling the box\n0:24 Ninety seconds\n0:36 What cracked');
    const elsewhere = { ...SITE, chapters: { ...SITE.chapters, way: 'webvtt file' } as SiteRules['chapters'] };
    expect(fitToSite({ ...INPUT, byHand: { text } }, elsewhere).chapters).toEqual(INPUT.chapters);
  });

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

  it('one very long link costs itself alone', () => {
    const links = [
      { label: 'Long', url: `https://l.example/${'x'.repeat(300)}` },
      { label: 'Short', url: 'https://l.example/s' },
    ];
    const posts: SiteRules = {
      ...SITE,
      title: undefined,
      chapters: undefined,
      tags: 'words in the text',
      text: { most: 240, unit: 'grapheme', links: true },
    };
    const template =
      '{{summary}}\n\n{{#links}}\n{{line}}\n{{/links}}\n\n{{#cut-first}}\nFrom the yard.\n{{/cut-first}}';
    const { text, leftOut } = fitToSite({ ...INPUT, template, links, chapters: [] }, posts);
    expect(text).toBe(
      [
        `Steaming the ribs\n\n${INPUT.summary}\n\nShort: https://l.example/s`,
        'From the yard.\n\n#steambending #ribs #greenoak',
      ].join('\n\n'),
    );
    expect(leftOut).toEqual([`link Long: ${links[0]?.url}`]);
  });

  it('a title that leads the text is shortened at a word, last of all, and that is said', () => {
    const posts: SiteRules = { ...limited(60), title: undefined, chapters: undefined };
    const title = 'Steaming the ribs of an old boat until every one of them has bent home';
    const { text, leftOut, findings } = fitToSite(
      { ...INPUT, title, template: '{{summary}}', links: [], tags: [] },
      posts,
    );
    expect(text).toBe('Steaming the ribs of an old boat until every one of them…');
    expect(leftOut).toEqual([`the end of the summary: “${INPUT.summary}”`, 'the end of the title: “has bent home”']);
    expect(findings).toEqual([]);
  });

  it('says so where not even one word of it fits', () => {
    const { findings } = fitToSite({ ...INPUT, template: 'A line that never goes\n{{summary}}' }, limited(10));
    expect(findings[0]?.what).toContain('nothing more of it may go');
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
          // Before the sign that there was more, a comma says nothing.
          const plain = each.replace(/[,-]+$/, '');
          expect(fitted.text.includes(plain) || said.includes(plain)).toBe(true);
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

describe('whatever the limit', () => {
  const word = fc.constantFrom('keel', 'öl', '🛶', 'https://a.example/x', 'steam-box,', '\n');
  const text = fc.array(word, { maxLength: 40 }).map((all) => all.join(' ').trim());
  const units = fc.constantFrom<TextUnit>('utf16', 'codePoint', 'grapheme', 'utf8');
  const most = fc.integer({ min: 60, max: 600 });

  it('fitting what was fitted changes nothing, and leaves nothing out', () => {
    fc.assert(
      fc.property(text, units, most, (summary, unit, limit) => {
        const once = fitToSite({ ...INPUT, summary, tags: [] }, limited(limit, unit));
        const again = { ...INPUT, summary: once.text, template: '{{summary}}', links: [], tags: [], chapters: [] };
        expect(fitToSite(again, limited(limit, unit))).toMatchObject({ text: once.text, leftOut: [] });
      }),
    );
  });

  it('more room costs something only where what matters more comes back for it', () => {
    // The more important first: the chapters, links from the first, parts from the one that goes last.
    const matters = ['the chapters', 'link Plans', 'link Tools', 'part 2', 'part 1'];
    fc.assert(
      fc.property(text, units, most, fc.integer({ min: 1, max: 200 }), (summary, unit, limit, more) => {
        const kept = (room: number) => {
          const { leftOut } = fitToSite({ ...INPUT, summary, tags: [] }, limited(room, unit));
          return matters.map((what) => !leftOut.some((each) => each.startsWith(what)));
        };
        const [few, many] = [kept(limit), kept(limit + more)];
        const first = many.findIndex((is, index) => is !== few[index]);
        if (first >= 0) expect(many[first]).toBe(true);
      }),
    );
  });

  it('no chapter line is there in part: all of them, or none', () => {
    const lines = ['0:00 Filling the box', '0:24 Ninety seconds', '0:36 What cracked'];
    fc.assert(
      fc.property(text, units, most, (summary, unit, limit) => {
        const { text: fitted, chapters } = fitToSite({ ...INPUT, summary, tags: [] }, limited(limit, unit));
        const there = lines.filter((line) => fitted.split('\n').includes(line));
        expect(there).toEqual(chapters.length > 0 ? lines : []);
      }),
    );
  });
});

describe('what keeps a text from being sent', () => {
  it('a blank that was left open, a name that there is not, more links than are taken', () => {
    expect(whatOf({ ...INPUT, names: {} })).toEqual(['The blank “channel” is left open']);
    expect(whatOf({ ...INPUT, summary: ' ' })).toEqual(['The blank “summary” is left open']);
    const text = { most: 400, unit: 'utf16' as const, links: true, mostLinks: 1 };
    const summary = 'www.a.example and www.b.example';
    const { findings } = fitToSite({ ...INPUT, summary, template: '{{summary}}' }, { ...SITE, text });
    expect(findings.map(({ what }) => what)).toEqual([`The text has 2 links; ${SITE.name} takes 1`]);
    expect(whatOf({ ...INPUT, title: '' })).toContain('The title is empty');
  });

  it('links where the site takes none', () => {
    const shop: SiteRules = {
      ...SITE,
      chapters: undefined,
      text: { most: 900, unit: 'utf8', links: false },
    };
    const { findings, leftOut, text } = fitToSite({ ...INPUT, summary: 'See www.yard.example' }, shop);
    expect(findings[0]?.what).toContain('no links');
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
    const rules = { most: 2, longest: 8 };
    expect(fitTags(['one', 'far too long', 'two', 'three'], rules, 'S')).toEqual({
      tags: ['one', 'two'],
      leftOut: ['tag far too long: longer than 8 characters', 'tag three: S takes 2 tags'],
    });
  });
});

describe('what helps search', () => {
  it('is said, and keeps nothing from being sent', () => {
    const found = searchFindings({
      title: 'MARROW QUAY: STEAMING RIBS',
      text: 'We bend a rib.',
      tags: ['steam box', 'Steam-Box', 'ribs'],
      channel: 'Marrow Quay',
      earlier: ['Marrow Quay: steaming ribs'],
    });
    expect(found).toEqual([
      'The title is all in capitals',
      'The title repeats the channel’s name',
      'An earlier video has the same title',
      'Words of the title that the text does not use: marrow, quay, steaming',
      'The title’s phrase is not at the front: “Marrow Quay” is',
      'The tags “steam box” and “Steam-Box” say the same',
    ]);
    expect(searchFindings({ title: 'The rib', text: 'A rib is bent.', tags: ['rib'] })).toEqual([]);
  });

  it.each([
    [{ title: 'Plank by Plank 12: Steaming', phrase: 'Steaming' }, '“Plank by Plank 12:” is'],
    [{ title: 'Episode 7 – Steaming' }, '“Episode 7 –” is'],
    [{ title: '#12 Steaming' }, '“#12” is'],
    [{ title: 'Steaming 12', text: 'Hello!\nWe do some steaming.' }, 'first line uses no word'],
  ])('says that the phrase comes late: %j', (given, says) => {
    expect(searchFindings({ text: 'Steaming.', tags: [], ...given }).join()).toContain(says);
  });

  it.each([{ title: 'Partings of the keel' }, { title: 'Steaming', phrase: 'Steaming' }, { title: 'Week 46' }])(
    'finds nothing late in %j',
    (given) => {
      expect(searchFindings({ text: '', tags: [], ...given })).toEqual([]);
    },
  );
});

describe('names in a template', () => {
  const names = {
    channel: 'Marrow Quay',
    series: 'Plank by Plank',
    episode: '12',
    shelf: {
      'steam-box': { label: 'Steam box plans', url: 'https://l.example/box' },
      bare: { label: '', url: 'https://l.example/b' },
    },
  };
  const text = (template: string, site = SITE) => fitToSite({ ...INPUT, names, template, chapters: [] }, site).text;
  const noLinks: SiteRules = { ...SITE, text: { most: 400, unit: 'utf8', links: false } };

  it('stand for the series, the episode and links of the shelf, as lines or as addresses', () => {
    expect(text('{{series}} {{episode}}\n{{shelf.steam-box}}\n{{shelf.bare}}\n({{address.steam-box}})')).toBe(
      'Plank by Plank 12\nSteam box plans: https://l.example/box\nhttps://l.example/b\n(https://l.example/box)',
    );
  });

  it('of links vanish where a site takes none, and each is said', () => {
    const template = '{{summary}}\n{{#takes-links}}Gear:\n{{/takes-links}}{{shelf.steam-box}}';
    const fitted = fitToSite({ ...INPUT, names, template, links: [], chapters: [] }, noLinks);
    expect(fitted).toMatchObject({ text: INPUT.summary, findings: [] });
    expect(fitted.leftOut[0]).toBe('link Steam box plans https://l.example/box: Fold takes no links');
    expect(text(template)).toContain('Gear:\nSteam box plans: https');
  });

  it('that the shelf does not have stop it', () => {
    expect(whatOf({ ...INPUT, names, template: '{{shelf.gone}}' })).toEqual(['There is no link “gone” on the shelf']);
  });

  it('stand in a title, which loses its parts before its words', () => {
    const titled = (titlePattern: string, title = INPUT.title) =>
      fitToSite({ ...INPUT, names, title, titlePattern }, SITE);
    expect(titled('{{title}} · {{series}} {{episode}}').title).toBe('Steaming the ribs · Plank by Plank 12');
    const long = titled('{{title}}{{#cut-first}} · {{series}}{{/cut-first}}', 'Steaming the ribs of the third boat');
    expect(long).toMatchObject({ title: 'Steaming the ribs of the third boat' });
    expect(long.leftOut[0]).toContain('parts of the title “Steaming the ribs of the third boat · Plank by Plank”');
    const longest = titled('{{title}} · {{series}}', 'Steaming the ribs of the third boat');
    expect(longest.leftOut[0]).toContain('the title’s pattern');
    expect(titled('{{title}} {{date}}').findings).toEqual([{ place: 'title', what: 'The blank “date” is left open' }]);
  });

  it('tell the day in the video’s language', () => {
    expect(dayInWords('2026-11-25', '')).toBe('25 November 2026');
    expect(dayInWords('2026-11-25', 'de')).toBe('25. November 2026');
  });
});

describe('what stands before the fold', () => {
  it('is so many lines, or so many signs as the site counts, and never half a grapheme', () => {
    const fold = (lines: number, most: number, unit: TextUnit) => ({ lines, most, unit });
    expect(beforeFold('a\nb\nc', fold(2, 100, 'utf16'))).toBe('a\nb');
    expect(beforeFold('abcdef', fold(9, 3, 'codePoint'))).toBe('abc');
    expect(beforeFold('a👩‍👩‍👧b', fold(9, 5, 'utf16'))).toBe('a');
    expect(beforeFold('öö', fold(9, 3, 'utf8'))).toBe('ö');
    const units = fc.constantFrom<TextUnit>('utf16', 'codePoint', 'grapheme', 'utf8');
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), units, fc.integer({ min: 0, max: 40 }), (text, unit, most) => {
        const shown = beforeFold(text, fold(3, most, unit));
        expect(text.startsWith(shown)).toBe(true);
        expect(textLength(shown, unit)).toBeLessThanOrEqual(most);
      }),
    );
  });
});

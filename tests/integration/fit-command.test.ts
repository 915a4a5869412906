import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { kettle } from '../setup/command';

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-fit-'));
const file = path.join(folder, 'words.json');
const input = {
  title: 'Steaming the ribs',
  summary: 'An hour an inch in the steam box, then ninety seconds to bend the ribs home. 🛶',
  template: '{{summary}}\n\n{{#cut-first}}\n{{#links}}\n{{label}}: {{url}}\n{{/links}}\n{{/cut-first}}\n\n{{chapters}}',
  links: [{ label: 'Steam box', url: 'https://yard.example/box' }],
  tags: ['steam bending', 'ribs'],
  chapters: [
    { seconds: 0, title: 'Filling the box' },
    { seconds: 24, title: 'Ninety seconds' },
    { seconds: 36, title: 'What cracked' },
  ],
  durationSeconds: 60,
};

async function printed(site: string, given: object = input) {
  writeFileSync(file, JSON.stringify(given));
  const { status, out, said } = await kettle(['fit', '--json', file, '--site', site]);
  const words = (out ? JSON.parse(out) : {}) as Record<string, unknown>;
  return { ...words, text: words.text, status, said };
}

describe('fitting by the command line', () => {
  it('gives each site what it takes', async () => {
    expect(await printed('lanternfold')).toMatchObject({
      status: 0,
      title: input.title,
      text: `${input.summary}\n\nSteam box: https://yard.example/box\n\n0:00 Filling the box\n0:24 Ninety seconds\n0:36 What cracked`,
      tags: input.tags,
      leftOut: [],
      findings: ['Words of the title that the text does not use: steaming'],
    });
    expect((await printed('fieldgate')).text).not.toContain('0:24');
    expect(await printed('pipwire')).toMatchObject({
      title: '',
      text: `Steaming the ribs\n\n${input.summary}\n\nSteam box: https://yard.example/box\n\n#steambending #ribs`,
      tags: [],
    });
    expect(await printed('stallmarket')).toMatchObject({
      text: input.summary,
      leftOut: ['link Steam box https://yard.example/box: Stallmarket takes no links'],
    });
  });

  it('takes a site by its name as people write it', async () => {
    expect((await printed('Pipwire')).text).toBe((await printed('pipwire')).text);
  });

  it('lists what had no room, in the order in which it went, and cuts no word, link or grapheme', async () => {
    const words = 'Oak and 👩‍👩‍👧 and kettles. '.repeat(12).trim();
    const full = await printed('pipwire', { ...input, summary: words });
    const { leftOut = [] } = full as { leftOut?: string[] };
    expect(leftOut[0]).toContain('part 1 of the template');
    expect(leftOut.slice(1, 3)).toEqual(['#steambending', '#ribs']);
    expect(leftOut.at(-1)).toContain('the end of the summary');
    const text = String(full.text);
    const count = Array.from(new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)).length;
    expect(count).toBeLessThanOrEqual(240);
    expect(text.endsWith('…')).toBe(true);
    const whole = new Set(`${input.title} ${words}`.split(' '));
    for (const word of text.replace('…', '').split(/\s+/)) expect(whole.has(word) || whole.has(`${word}.`)).toBe(true);
  });

  it('prints what it printed before for what it has fitted', async () => {
    const fitted = await printed('stallmarket', { ...input, summary: 'Oak. '.repeat(300), links: [] });
    const again = { ...input, summary: String(fitted.text), template: '{{summary}}', links: [], chapters: [] };
    expect(await printed('stallmarket', again)).toMatchObject({ text: fitted.text, leftOut: [] });
  });

  it('exits 1 while something keeps the words from being sent, and says what is wrong with a file', async () => {
    expect(await printed('lanternfold', { ...input, template: '{{summary}} {{sponsor}}' })).toMatchObject({
      status: 1,
      findings: expect.arrayContaining(['The blank “sponsor” is left open']),
    });
    expect((await printed('lanternfold', { links: [{ label: 'x' }] })).said).toContain(
      'links[0].url is a required field',
    );
    expect((await printed('nowhere')).said).toContain('there are lanternfold, fieldgate, pipwire, stallmarket');
    expect((await printed('lanternfold', { ...input, template: '{{#links}}' })).said).toContain('Unclosed section');
  });
});

import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import type { SheetChannel, SheetView } from '@/desk/views/views';
import { BUTTONS } from '@/ui/button-words';
import { expectAccessible, itsBrowser, textOf, untilRead, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { kettle } from '../setup/command';
import { itsPages } from '../setup/its-pages';
import { stepsInOrder } from '../setup/steps';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let page: Page;
let ids: Map<string, string>;

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-layers-'));
const ALL = ['Marrow Quay', 'Tide Notes', 'Quay School', 'Marrow Quay Films', '@marrowquay', 'Marrow Quay Tools'];
const LINES =
  'How a plank is brought to the shape of the boat, and why it cracks when nobody waits for it.\nWith a kettle, a long box and two people who have done it wrong before.';

/** A series as somebody else exported it. */
const SERIES = {
  kind: 'kettle-drop series',
  version: 1,
  name: 'Hand Tools, Slowly',
  pattern: '',
  defaults: {
    template: '{{summary}}\n\n{{#links}}\n{{line}}\n{{/links}}\n\n{{#cut-first}}\n{{shelf.yard}}\n{{/cut-first}}',
    titlePattern: '{{title}}{{#cut-first}} | Hand Tools {{episode}}{{/cut-first}}',
    tags: { way: 'add', items: ['hand tools', 'wooden boat'] },
    privacy: 'everyone',
    category: 'craft',
    products: ['2000000000015'],
    picture: { way: 'layout', at: { num: 1, den: 1 }, band: 'below' },
  },
};

const region = (name: string) => page.getByRole('region', { name, exact: true });
const rail = () => region('Where it goes');
const notice = (text: string | RegExp) => page.getByText(text).first().waitFor();
const saved = () => page.getByText('all saved').waitFor();

/** The Sheet that the page shows, as the server tells it. */
async function sheetHere(): Promise<SheetView> {
  const id = new URL(page.url()).pathname.split('/').pop();
  return (await fetch(`${home}/api/videos/${id}`)).json() as Promise<SheetView>;
}

stepsInOrder();

beforeAll(async () => {
  // What reads the settings is loaded only when this machine's are set.
  ids = await (await import('../setup/desk')).channelsOfTheYard();
  page = await (await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 900 } }))).newPage();
});

describe('a title and two lines are typed, and everything else is there', () => {
  it('puts a link on the shelf, and says what its name has to look like', async () => {
    await page.goto(`${home}/links`);
    await notice('The shelf is empty.');
    await page.getByLabel('Name of a new link').fill('The Yard');
    await notice('A name has small letters, digits and hyphens');
    await page.getByLabel('Name of a new link').fill('yard');
    await page.getByLabel('Words of a new link').fill('The yard');
    await page.getByLabel('Address of a new link').fill('https://yard.example/boats');
    await page.getByRole('button', { name: 'Add link' }).click();
    await page.getByLabel('Address of yard').waitFor();
    await notice('used nowhere');
    await expectAccessible(page);
  });

  it('takes a series from a file, and tries its pattern on the files that came', async () => {
    await page.goto(`${home}/series`);
    await notice('There is no series yet.');
    const wrong = path.join(folder, 'wrong.json');
    writeFileSync(wrong, '{"kind":"something else","name":"X"}');
    await page.getByLabel('Series file').setInputFiles(wrong);
    await notice('its “kind” is not “kettle-drop series”');
    const file = path.join(folder, 'tools.series.json');
    writeFileSync(file, JSON.stringify(SERIES));
    await page.getByLabel('Series file').setInputFiles(file);
    await page.getByRole('heading', { level: 1, name: 'Hand Tools, Slowly' }).waitFor();
    const pattern = page.getByLabel('Its files');
    await pattern.fill('{week}');
    await notice('“{week}” is none of {episode}, {title} and *');
    await pattern.fill('hand-tools_{episode}_{title}');
    for (const name of ALL) await page.getByRole('checkbox', { name: new RegExp(`^${name}(?! Films| Tools)`) }).click();
    await region('Words')
      .getByText('used by')
      .or(region('Preview').getByText('The title that is typed'))
      .first()
      .waitFor();
    await region('Preview').getByText('The yard: https://yard.example/boats').waitFor();
    await expectAccessible(region('Words'));
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: BUTTONS.export }).click(),
    ]);
    expect(JSON.parse(await textOf(download))).toMatchObject({
      ...SERIES,
      pattern: 'hand-tools_{episode}_{title}',
    });
  });

  it('says what is wrong with a template at its place, and offers the names while it is typed', async () => {
    const editor = region('Words').getByRole('textbox', { name: 'Description template' });
    await editor.click();
    await page.keyboard.press('Control+End');
    await page.keyboard.type('\n\n{{shelf.nowhere}}');
    await notice('The shelf has no link “nowhere”, in line 11');
    await region('Preview').getByText('There is no link “nowhere” on the shelf').waitFor();
    for (let n = 0; n < '{{shelf.nowhere}}'.length; n += 1) await page.keyboard.press('Backspace');
    await page.keyboard.type('{{hash');
    await page.getByRole('option', { name: /hashtags/ }).click();
    await expect.poll(() => editor.innerText()).toContain('{{hashtags}}');
    await expect.poll(() => region('Words').getByText('▲').count()).toBe(0);
  });

  it('answers the law’s question for a channel and for a site', async () => {
    await page.goto(`${home}/channels`);
    await page.getByRole('link', { name: 'Defaults of the site' }).first().click();
    await page.getByRole('heading', { level: 1, name: 'Lanternfold' }).waitFor();
    await region('Declarations').getByRole('radio', { name: /^No/ }).check();
    await region('Declarations').getByText('set here').waitFor();
    await saved();
    await page.goto(`${home}/channels/${ids.get('Quay School')}`);
    await region('Declarations').locator('[data-tip="from the site Lanternfold"]').waitFor();
    await region('Declarations').getByRole('radio', { name: /^Yes/ }).check();
    await region('Declarations').getByRole('button', { name: 'aimed at children: set here' }).waitFor();
    const tags = page.getByLabel('Tags', { exact: true });
    await tags.fill('for children,');
    await tags.press('Enter');
    await notice('added here');
    await page.getByRole('button', { name: 'tags: added here' }).click();
    await page.getByRole('menuitem', { name: 'Replace inherited ones' }).click();
    await notice('replaces inherited');
    await saved();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await notice('added here');
    await saved();
    await expectAccessible(page);
  });

  it('brings a file: series, episode, title and channels are there; two lines make it ready everywhere', async () => {
    await page.goto(home);
    const clip = makeClip({ name: 'hand-tools_03_the-steam-box_FINAL.mp4', seconds: 4 });
    await page.getByLabel('Finished video files').setInputFiles(clip);
    await untilRead(page);
    await region('Words').getByText('recognised from the file name').waitFor();
    expect(await page.getByLabel('Episode').inputValue()).toBe('3');
    expect(await page.getByLabel('Title', { exact: true }).inputValue()).toBe('The steam box');
    await rail().getByText('The blank “summary” is left open').first().waitFor();
    await page.getByLabel('Title', { exact: true }).fill('Steaming a plank without cracks');
    await page.getByLabel('Summary').fill(LINES);
    await saved();
    await expect.poll(() => rail().getByText('● ready').count()).toBe(6);
    await region('Picture').getByText('made as the series does').waitFor();
    await region('Picture').locator('[data-tip="from the series Hand Tools, Slowly"]').waitFor();
    await region('Picture').getByRole('button', { name: 'Let the site pick' }).click();
    await region('Picture').getByText('No picture of your own').waitFor();
    await region('Picture').getByRole('button', { name: 'picture: set here' }).click();
    await page.getByRole('menuitem', { name: 'Reset to the series Hand Tools, Slowly' }).click();
    await region('Picture').getByText('made as the series does').waitFor();
    await region('Declarations').getByText('Different on Quay School').first().waitFor();
    await rail().getByRole('button', { name: 'Send to six channels' }).waitFor();
    await expectAccessible(rail());
  });

  it('shows for each channel the words as they will be there, counted, folded, and with what had no room', async () => {
    const there = region('Preview');
    await there.getByText('Steaming a plank without cracks | Hand Tools 3').waitFor();
    await there.getByText('Hidden until expanded').waitFor();
    await there.getByRole('tab', { name: /Marrow Quay Tools/ }).click();
    await there.getByText('link The yard https://yard.example/boats: Stallmarket takes no links').waitFor();
    await there.getByText(/of 900 bytes/).waitFor();
    await there.getByRole('tab', { name: /@marrowquay/ }).click();
    await there.getByText(/of 240 characters/).waitFor();
    await there.getByText('#handtools').waitFor();
    const pip = (await sheetHere()).channels.find(({ name }) => name === '@marrowquay');
    expect(pip?.leftOut.join()).toContain('part 1 of the template');
  });

  it('moves a tag up to the series, puts tags in order, and takes both back', async () => {
    const tags = page.getByLabel('Tags', { exact: true });
    await tags.fill('steam box, plank');
    await tags.press('Enter');
    const mark = region('Words');
    await mark.getByRole('button', { name: 'tags: added here' }).click();
    await page.getByRole('menuitem', { name: 'Make default for “Hand Tools, Slowly”' }).click();
    await notice(/No other unsent video changes by it/);
    await expect.poll(async () => (await sheetHere()).own.tags).toBeUndefined();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(async () => (await sheetHere()).own.tags?.items).toEqual(['steam box', 'plank']);
    const grip = page.getByRole('button', { name: 'Move the tag plank', exact: true });
    await grip.focus();
    await page.keyboard.press('Space');
    await page.getByText('The tag plank is at place 2 of 2.').waitFor({ state: 'attached' });
    await page.keyboard.press('ArrowLeft');
    await page.getByText('The tag plank is at place 1 of 2.').waitFor({ state: 'attached' });
    await page.keyboard.press('Space');
    await expect.poll(async () => (await sheetHere()).own.tags?.items).toEqual(['plank', 'steam box']);
    await page.getByRole('button', { name: BUTTONS.suggestTags }).click();
    await page.getByRole('dialog').getByText('“steam box”, joined').waitFor();
    await page.getByRole('button', { name: 'Add the tag steambox' }).click();
    await page.getByRole('button', { name: 'Remove the tag steambox' }).waitFor();
    await page.keyboard.press('Escape');
  });

  it('takes a text by hand for one channel, and says when the record’s has changed since', async () => {
    const card = rail().getByRole('region', { name: /^@marrowquay on/ });
    await card.getByRole('button', { name: BUTTONS.sameText }).click();
    const dialog = page.getByRole('dialog', { name: 'For @marrowquay alone' });
    await dialog.getByRole('button', { name: BUTTONS.writeOwnText }).click();
    await expect.poll(() => dialog.getByLabel('Text').inputValue()).toContain('How a plank is brought');
    await dialog.getByLabel('Text').fill('A plank, a kettle, a long box.');
    await dialog.getByText('A plank, a kettle, a long box.').last().waitFor();
    await saved();
    await dialog.getByRole('button', { name: BUTTONS.close }).click();
    await page.getByLabel('Summary').fill(`${LINES}\nAnd a third line.`);
    await saved();
    await card.getByText('▲ the main text has changed since').click();
    await dialog.getByText('It is now:').waitFor();
    await expectAccessible(dialog);
    await dialog.getByRole('button', { name: 'Keep mine' }).click();
    await expect.poll(() => dialog.getByText('It is now:').count()).toBe(0);
    await dialog.getByText('Everything else that can be set').click();
    await dialog.getByLabel('Privacy').waitFor();
    await dialog.getByRole('button', { name: BUTTONS.close }).click();
    await card.getByRole('button', { name: 'Different here: text' }).waitFor();
    await page.getByLabel('Summary').fill(LINES);
    await saved();
  });

  it('sends to six channels on four sites; what the watch pages show is what the Sheet said', async () => {
    await saved();
    const said = (await sheetHere()).channels.filter(({ ticked }) => ticked);
    await rail().getByRole('button', { name: 'Send to six channels' }).click();
    const states = async () => (await sheetHere()).channels.map(({ drop }) => drop?.state);
    await expect.poll(states, { interval: 1000 }).toEqual(Array(6).fill('live'));
    const watch = await (await browser.newContext()).newPage();
    const links = new Map((await sheetHere()).channels.map(({ name, drop }) => [name, drop?.link ?? '']));
    for (const channel of said) await expectShown(watch, links.get(channel.name) ?? '', channel);
    await watch.context().close();
  });

  it('leaves alone what was sent when the link and the series change, and says so', async () => {
    const sheet = page.url();
    await page.goto(`${home}/links`);
    await page.getByText(/Sent in \d videos?/).click();
    await page.getByLabel('Address of yard').fill('https://yard.example/moved');
    await page.getByLabel('Address of yard').blur();
    await notice('▲ went out as https://yard.example/boats');
    await page.goto(sheet);
    await rail().getByText('Defaults or links have changed since').first().waitFor();
    expect((await sheetHere()).channels[0]?.words.text).toContain('https://yard.example/boats');
  });

  it('goes the same way at phone width', async () => {
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(home);
    const clip = makeClip({ name: 'hand-tools_04_from-the-phone.mp4', seconds: 3 });
    await page.getByLabel('Finished video files').setInputFiles(clip);
    await untilRead(page);
    await page.getByLabel('Summary').fill('Two lines\nfrom the phone.');
    await saved();
    await expect.poll(() => rail().getByText('● ready').count()).toBe(6);
    const { channels } = await sheetHere();
    expect(channels[0]?.words).toMatchObject({
      title: 'From the phone | Hand Tools 4',
      text: 'Two lines\nfrom the phone.\n\nThe yard: https://yard.example/moved',
    });
    const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
    expect(await wide()).toBeLessThanOrEqual(390);
    await expectAccessible(rail());
    await rail().getByRole('button', { name: 'Send to six channels' }).waitFor();
    for (const place of ['series', 'links', 'channels', `channels/${ids.get('Quay School')}`]) {
      await page.goto(`${home}/${place}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      expect([place, await wide()]).toEqual([place, 390]);
    }
  });

  it('says over HTTP what was wrong with what, and serves no page of another origin', async () => {
    const ask = async (method: string, at: string, body?: unknown, headers: Record<string, string> = {}) => {
      const init = { method, headers: { 'content-type': 'application/json', ...headers } };
      const text = typeof body === 'string' ? body : JSON.stringify(body);
      const answer = await fetch(`${home}/api/${at}`, { ...init, body: body === undefined ? undefined : text });
      const { detail = '' } = (await answer.json().catch(() => ({}))) as { detail?: string };
      return `${answer.status} ${detail}`;
    };
    const { series } = (await (await fetch(`${home}/api/series`)).json()) as { series: { id: string }[] };
    const mine = `defaults/series/${series[0]?.id}`;
    expect(await ask('PATCH', mine, { colour: 'red' })).toMatch(/^422 There is no default called “colour”/);
    expect(await ask('PATCH', mine, '{"privacy"')).toMatch(/^400 The request is no JSON/);
    expect(await ask('PATCH', mine, ['privacy'])).toMatch(/^422 Fields are given as a JSON object/);
    expect(await ask('GET', 'defaults/series/00000000-0000-7000-8000-000000000000')).toMatch(/^404 There is no such/);
    expect(await ask('GET', 'defaults/planet/earth')).toMatch(/^422 /);
    expect(await ask('POST', 'series', { name: '' })).toMatch(/^422 Give the series a name/);
    expect(await ask('POST', 'links', { name: 'yard', label: '', url: 'https://a.example' })).toMatch(/^422 .*already/);
    expect(await ask('PATCH', 'links/nothing', { label: 'x' })).toMatch(/^404 /);
    expect(await ask('POST', 'steps/nothing', { step: 'undo' })).toMatch(/^404 /);
    expect(await ask('POST', 'steps/shelf', { step: 'sideways' })).toMatch(/^422 /);
    const evil = { origin: 'http://evil.example' };
    for (const [method, at] of [
      ['PATCH', mine],
      ['POST', 'series'],
      ['POST', 'series/import'],
      ['POST', 'links'],
      ['DELETE', 'links/yard'],
      ['POST', 'steps/shelf'],
    ] as const) {
      expect(await ask(method, at, {}, evil)).toMatch(/^403 /);
    }
  });

  it('holds from the command line, which names each layer', async () => {
    const clip = makeClip({ name: 'hand-tools_05_on-the-line.mp4', seconds: 3 });
    const run = (...args: string[]) => kettle(['send', clip, ...args]);
    const none = await run('--series', 'No such');
    expect(none.said).toContain('There is no series called “No such”. There are “Hand Tools, Slowly”.');
    const sent = await run('--again', '--description', 'Two lines.', '--tags', 'line', '--explain');
    expect(sent.said).toBe('');
    expect(sent.out).toContain('Series: Hand Tools, Slowly, recognised from the file name; episode 5');
    expect(sent.out).toContain('aimed at children: yes  [the channel Quay School]');
    expect(sent.out).toContain('aimed at children: no  [the site Lanternfold]');
    expect(sent.out).toContain('privacy: "everyone"  [the series Hand Tools, Slowly]');
    expect(sent.out).toMatch(/tags: hand tools, wooden boat, line {2}\[the series Hand Tools, Slowly and this video\]/);
    expect(sent.out).toContain(`Sent to ${ALL.join(', ')}`);
  });
});

/** A watch page has the title, the text whole and before its fold, and the tags that the Sheet said. */
async function expectShown(watch: Page, link: string, { words, shownFirst, rules, name }: SheetChannel) {
  await watch.goto(link);
  // The fold may stand inside a word, and a page breaks the line there.
  const plain = (text: string) => text.replace(/\s+/g, '');
  if (rules.title) expect([name, await watch.locator('h1').textContent()]).toEqual([name, words.title]);
  const first = watch.locator('[data-part=first]');
  if (shownFirst !== undefined) expect([name, plain(await first.innerText())]).toEqual([name, plain(shownFirst)]);
  const rest = watch.getByText('Show all of it');
  if ((await rest.count()) > 0) await rest.click();
  const body = plain((await watch.locator('body').innerText()).replace('Show all of it', ''));
  expect(body).toContain(plain(words.text));
  if (typeof rules.tags === 'object')
    for (const tag of words.tags) expect([name, body]).toEqual([name, expect.stringContaining(plain(tag))]);
}

import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { BrowserContext, Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { STATE_WORDS } from '@/core/drop';
import type { BoardView, ChannelsView } from '@/desk/views/views';
import { BUTTONS } from '@/ui/button-words';
import { choose, expectAccessible, itsBrowser, untilRead, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { kettle } from '../setup/command';
import { itsPages } from '../setup/its-pages';
import { stepsInOrder } from '../setup/steps';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let context: BrowserContext;
let page: Page;

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-four-'));
const clip = makeClip({ name: 'hand-tools-slowly_03_FINAL.mp4', seconds: 36, rate: '12' });
const write = (name: string, text: string) => {
  const file = path.join(folder, name);
  writeFileSync(file, text);
  return file;
};
const chapters = write(
  'chapters.vtt',
  'WEBVTT\n\n00:00.000 --> 00:12.000\nThe sole\n\n00:12.000 --> 00:24.500\nThe iron\n\n00:24.500 --> 00:36.000\nThe strop\n',
);
const captions = write('words.srt', '1\n00:00:01,000 --> 00:00:04,000\nA spokeshave wants a flat sole\n');

/** Who connects at each site, and the channels that there are. */
const SITES: [id: string, name: string, person: RegExp][] = [
  ['lanternfold', 'Lanternfold', /Wil Tarrant/],
  ['fieldgate', 'Fieldgate', /Isa Brandt/],
  ['pipwire', 'Pipwire', /Tam Okoye/],
  ['stallmarket', 'Stallmarket', /Wil Tarrant/],
];
const CHANNELS = ['Marrow Quay', 'Tide Notes', 'Quay School', 'Marrow Quay Films', '@marrowquay', 'Marrow Quay Tools'];
const control = (site: number, at: string, init: RequestInit = {}) =>
  fetch(`http://127.0.0.1:${machine.sitesPort + site}/control/${at}`, init);

const region = (name: string) => page.getByRole('region', { name, exact: true });
const rail = () => region('Where it goes');
const tickOf = (name: string) =>
  rail().getByRole('checkbox', { name: new RegExp(`^${name.replace('@', '\\@')}(?! Films| Tools)`) });
const notice = (text: string | RegExp) => page.getByText(text).first().waitFor();
/** The accounts of a site that are connected, as the pages' server tells it. */
async function connectedAt(siteId: string): Promise<unknown[] | undefined> {
  const view = (await (await fetch(`${home}/api/channels`)).json()) as ChannelsView;
  const { accounts = [] } = view.sites.find(({ id }) => id === siteId) ?? {};
  return accounts.filter(({ state }) => state === 'connected');
}
/** Where each drop of a video stands, as the Board tells it. */
async function statusOf(title: string): Promise<{ channel: string; state: string; link: string }[]> {
  const board = (await (await fetch(`${home}/api/board`)).json()) as BoardView;
  const names = new Map(board.channels.map(({ id, name }) => [id, name]));
  const drops = board.rows.find((row) => row.title === title)?.drops ?? [];
  return drops.map(({ channelId, state, link = '' }) => ({ channel: names.get(channelId) ?? '', state, link }));
}

stepsInOrder();

beforeAll(async () => {
  context = await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 900 } }));
  page = await context.newPage();
});

describe('one video goes everywhere it should', () => {
  it('connects an account at each site, in its own pages and words', async () => {
    for (const [id, name, person] of SITES) {
      await page.goto(`${home}/channels`);
      await page.getByRole('button', { name: `Connect ${name}` }).click();
      // Cookies of 127.0.0.1 hold for every port, so a person of the same id is signed in at the next site, too.
      const someoneElse = page.getByRole('button', { name: 'Someone else' });
      const picks = page.getByRole('button', { name: person });
      await picks.or(someoneElse).first().waitFor();
      if ((await picks.count()) > 0) await picks.click();
      await page.getByRole('heading', { name: 'Kettle Drop asks for your permission' }).waitFor();
      await page.getByRole('button', { name: 'Permit', exact: true }).click();
      await notice(/is connected\.$/);
      await region(name).getByText('● connected').waitFor();
      const { length: kept } = (await connectedAt(id)) ?? [];
      expect([id, kept]).toEqual([id, 1]);
    }
    await region('Pipwire').getByText('Kettle Drop may see its wire and draft posts').waitFor();
    expect(
      await region('Pipwire')
        .getByText(/playlist|collection/)
        .count(),
    ).toBe(0);
    await region('Fieldgate').getByText('no collections yet').waitFor();
    await expectAccessible(page);
    const listed = await kettle(['channels', '--json']);
    const lines = JSON.parse(listed.out) as { channel: string; site: string; connected: boolean }[];
    expect(lines.map(({ channel }) => channel)).toEqual(CHANNELS);
    expect(lines.every(({ connected }) => connected)).toBe(true);
  });

  it('offers what the ticked channels take, the sites named, and says what each still needs', async () => {
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(clip);
    await untilRead(page);
    expect(await page.getByRole('region', { name: 'Declarations' }).count()).toBe(0);
    await page.getByLabel('Marker file').setInputFiles(chapters);
    await page.getByRole('dialog').getByRole('button', { name: BUTTONS.addMarkers }).click();
    await page
      .locator('#chapters')
      .getByRole('checkbox', { name: /no colour/ })
      .click();
    await page.getByLabel('Title', { exact: true }).fill('The spokeshave 🪵');
    await page.getByLabel('Summary').fill('Flat sole, sharp iron, no hurry.\nMore at https://marrowquay.example');
    await page.getByLabel('Tags', { exact: true }).fill('spokeshave, hand tools,');
    await page.getByLabel('Tags', { exact: true }).press('Enter');
    // A tick moves its channel up: the next is pressed once the list stands still.
    for (const name of CHANNELS) {
      await tickOf(name).click();
      await expect.poll(() => tickOf(name).isChecked()).toBe(true);
    }
    const questions = region('Declarations');
    await questions.getByText('Required by law: choose yes or no.').waitFor();
    await rail().getByText('Stallmarket has nothing that is only for its owner').waitFor();
    await rail().getByText('Stallmarket takes no links in the text: https://marrowquay.example').waitFor();
    await rail().getByRole('button', { name: 'Send to two channels' }).waitFor();
    await expect.poll(() => rail().getByText('● ready').count()).toBe(2);
    expect(await rail().getByRole('button', { name: 'Say whether it is aimed at children' }).count()).toBe(1);
    await rail().getByRole('button', { name: 'Stallmarket wants at least one product' }).click();
    await expect.poll(() => page.evaluate(() => document.activeElement?.id)).toBe('declared-products');
    await page.keyboard.type('2000000000016');
    await questions.getByText('its last digit would have to be 5').waitFor();
    await page.keyboard.press('Backspace');
    await page.keyboard.type('5');
    await page.keyboard.press('Enter');
    await questions.getByRole('button', { name: 'Remove the product 2000000000015' }).waitFor();
    await expectAccessible(questions);
  });

  it('switches off what may not be on for children, says so, and brings it back', async () => {
    const questions = region('Declarations');
    await questions.getByRole('radio', { name: /^Yes/ }).check();
    await choose(questions.getByLabel('Adverts', { exact: true }), 'by interest');
    await questions.getByText('Off because of this: adverts by interest').waitFor();
    await questions.getByRole('radio', { name: /^No/ }).check();
    await expect.poll(() => questions.getByText(/Off because of this/).count()).toBe(0);
    await choose(questions.getByLabel('Adverts', { exact: true }), 'off');
    await choose(questions.getByLabel('Category', { exact: true }), 'Craft and making');
    await questions.getByLabel('Language', { exact: true }).fill('en');
    await choose(questions.getByLabel('Comments', { exact: true }), 'hold the doubtful ones');
    await questions.getByLabel('What for').fill('Camera');
    await questions.getByLabel('Who').fill('Isa Brandt');
    await questions.getByRole('button', { name: 'Add' }).first().click();
    await questions.getByText('Isa Brandt').waitFor();
    await page.getByLabel('Caption file').setInputFiles(captions);
    await page.getByRole('dialog').getByRole('button', { name: BUTTONS.useAsCaptions }).click();
    await region('Captions').locator('b', { hasText: 'English' }).waitFor();
    await page.getByRole('button', { name: /Use the frame at/ }).click();
    await page.getByText('from the video · 1280×720').first().waitFor();
  });

  it('takes words and privacy for one channel alone, and leaves the record as it is', async () => {
    await page.getByRole('radio', { name: /^Everyone/ }).check();
    const own = async (channel: string, fill: (dialog: ReturnType<Page['getByRole']>) => Promise<unknown>) => {
      const card = rail().getByRole('region', { name: new RegExp(`^${channel} on`) });
      await card.getByRole('button', { name: /Same text as elsewhere|Different here/ }).click();
      const dialog = page.getByRole('dialog', { name: `For ${channel} alone` });
      await fill(dialog);
      await page.getByText('all saved').waitFor();
      await dialog.getByRole('button', { name: BUTTONS.close }).click();
    };
    await own('Marrow Quay Tools', async (dialog) => {
      await dialog.getByLabel('Text').fill('Flat sole, sharp iron, no hurry.');
      await dialog.getByText('32 of 900 bytes').waitFor();
      await expectAccessible(dialog);
    });
    await own('@marrowquay', async (dialog) => {
      await dialog.getByLabel('Text').fill('A sharp spokeshave sings.');
      await dialog.getByText('#handtools').waitFor();
    });
    await own('Tide Notes', async (dialog) => {
      await dialog.getByText('Everything else that can be set').click();
      await choose(dialog.getByLabel('Privacy', { exact: true }), 'Only me');
      await dialog.getByText('set here').waitFor();
    });
    await rail().getByText('Different here: privacy').waitFor();
    await expect.poll(() => rail().getByText('● ready').count()).toBe(6);
    expect(await page.getByLabel('Summary').inputValue()).toContain('https://marrowquay.example');
  });

  it('sends to all of them together; each goes its own way', async () => {
    await rail().getByRole('button', { name: 'Send to six channels' }).click();
    const states = async () =>
      Object.fromEntries((await statusOf('The spokeshave 🪵')).map(({ channel, state }) => [channel, state]));
    const meant = Object.fromEntries(CHANNELS.map((name) => [name, 'live']));
    await expect.poll(states, { interval: 1000 }).toEqual(meant);
    await expect.poll(() => rail().getByText('Live · checked').count()).toBe(5);
    await rail().getByText('Live · private · checked').waitFor();
    await expectAccessible(rail());
    expect(await rail().getByText('Changed here, not sent yet').count()).toBe(0);
  });

  it('shows on four watch pages what the Sheet said, each in its own form', async () => {
    const links = new Map((await statusOf('The spokeshave 🪵')).map(({ channel, link }) => [channel, link]));
    const watch = await (await browser.newContext()).newPage();
    const shows = async (channel: string, ...texts: (string | RegExp)[]) => {
      await watch.goto(links.get(channel) ?? '');
      const rest = watch.getByText('Show all of it');
      if ((await rest.count()) > 0) await rest.click();
      for (const text of texts) await watch.getByText(text).first().waitFor();
      await watch.waitForFunction(() => (document.querySelector('video')?.readyState ?? 0) > 0);
    };
    await shows('Marrow Quay', 'The spokeshave 🪵', 'The iron', 'Craft and making', 'Doubtful comments are held');
    expect(await watch.locator('track').getAttribute('srclang')).toBe('en');
    await shows('Quay School', 'The spokeshave 🪵', 'Spoken: English');
    await shows('Marrow Quay Films', 'The spokeshave 🪵', '0:24 The strop', 'Camera', 'Isa Brandt', 'hand tools');
    await shows('@marrowquay', 'A sharp spokeshave sings.', '#spokeshave', '#handtools');
    await shows(
      'Marrow Quay Tools',
      'The spokeshave 🪵',
      'Flat sole, sharp iron, no hurry.',
      'Spokeshave, curved sole',
    );
    expect(await watch.getByText('marrowquay.example').count()).toBe(0);
    expect((await watch.goto(links.get('Tide Notes') ?? ''))?.status()).toBe(404);
    await watch.context().close();
  });

  it('goes on where it stopped when a permission is taken back in the middle and given again', async () => {
    await control(1, 'faults', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify([{ kind: 'line', bytes: 300_000 }]),
    });
    await page.goto(home);
    await page
      .getByLabel('Finished video files')
      .setInputFiles(makeClip({ name: 'taken-back.mp4', seconds: 20, bitRate: '1200k' }));
    await untilRead(page);
    await tickOf('Marrow Quay Films').click();
    await rail().getByRole('button', { name: 'Send to Marrow Quay Films' }).click();
    await rail().getByText(new RegExp(STATE_WORDS.landing)).waitFor();
    await control(1, 'take-back', { method: 'POST' });
    await control(1, 'faults', { method: 'DELETE' });
    await rail()
      .getByText(/Fieldgate no longer permits it|not connected/)
      .first()
      .waitFor();
    await page.goto(`${home}/channels`);
    await region('Fieldgate').getByText('▲ permission taken back').waitFor();
    await region('Fieldgate').getByRole('button', { name: BUTTONS.connectAgain }).click();
    await page
      .getByRole('button', { name: /Isa Brandt/ })
      .or(page.getByRole('button', { name: 'Permit', exact: true }))
      .first()
      .waitFor();
    const person = page.getByRole('button', { name: /Isa Brandt/ });
    if ((await person.count()) > 0) await person.click();
    await page.getByRole('button', { name: 'Permit', exact: true }).click();
    await region('Fieldgate').getByText('● connected').waitFor();
    await expect.poll(async () => (await statusOf('Taken back'))[0]?.state, { interval: 1000 }).toBe('live');
  });

  it('goes the same way at phone width', async () => {
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(makeClip({ name: 'from-the-phone.mp4', seconds: 4 }));
    await untilRead(page);
    await tickOf('Marrow Quay').click();
    await tickOf('@marrowquay').click();
    // What is asked depends on the channels: the page has moved once they are kept.
    await page.getByText('all saved').waitFor();
    await region('Declarations').getByRole('radio', { name: /^No/ }).check();
    await expect.poll(() => rail().getByText('● ready').count()).toBe(2);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(390);
    await expectAccessible(rail());
    await rail().getByRole('button', { name: 'Send to two channels' }).click();
    await expect
      .poll(async () => (await statusOf('From the phone')).map(({ state }) => state), {
        interval: 1000,
      })
      .toEqual(['live', 'live']);
    await page.getByRole('radio', { name: /^Everyone/ }).check();
    await rail().getByRole('button', { name: 'Send the changes to two channels' }).click();
    const sure = page.getByRole('alertdialog', { name: 'Open it to everyone on Marrow Quay and @marrowquay?' });
    await expectAccessible(sure);
    await sure.getByRole('button', { name: BUTTONS.sendAndOpen }).click();
    await expect.poll(() => rail().getByText('Live · checked').count()).toBe(2);
  });
});

import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LayerView } from '@/desk/views/views';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { choose, itsBrowser } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';

const HOLD = { KETTLE_HOLD_SECONDS: '8' };
const { home } = itsPages({ settings: { web: HOLD, worker: HOLD } });
const browser = itsBrowser();
let page: Page;
const part = (name: string) => page.getByRole('region', { name, exact: true });
const sure = () => page.getByRole('alertdialog');
const clip = makeClip({ name: 'house.mp4', seconds: 2 });

const video = (fileName: string, wished: Record<string, unknown>, channel?: string) =>
  desk.readVideo(clip, fileName, wished, channel);

beforeAll(async () => {
  await desk.channelsOfTheYard();
  page = await (await browser.newContext({ viewport: { width: 1280, height: 900 } })).newPage();
});

describe('a series', () => {
  it('is duplicated with all that it sets, and deleted after a question that undo takes back', async () => {
    const id = await desk.newSeries({ name: 'Plank diary', pattern: 'plank_{title}' });
    await desk.editDefaults({ layer: 'series', owner: id }, { privacy: 'link', tags: { way: 'add', items: ['keel'] } });
    await page.goto(`${home}/series/${id}`);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await page.waitForURL((url) => url.pathname.startsWith('/series/') && !url.pathname.endsWith(id));
    const copyId = new URL(page.url()).pathname.split('/').pop();
    const { set } = (await (await fetch(`${home}/api/defaults/series/${copyId}`)).json()) as LayerView;
    expect(set).toMatchObject({ privacy: 'link', tags: { way: 'add', items: ['keel'] } });
    await page.getByRole('button', { name: 'Remove the tag keel' }).waitFor();
    const name = page.getByLabel('Name', { exact: true });
    const copied = await name.inputValue();
    expect(copied).not.toBe('Plank diary');
    await page.getByRole('button', { name: BUTTONS.delete, exact: true }).click();
    await sure().getByText('Its videos stay, without its defaults.').waitFor();
    await sure().getByRole('button', { name: 'Delete it' }).click();
    await page.waitForURL(`${home}/series`);
    await expect.poll(() => page.getByRole('link', { name: copied, exact: true }).count()).toBe(0);
    await page.getByRole('button', { name: BUTTONS.undo }).first().click();
    await page.getByRole('link', { name: copied, exact: true }).waitFor();
    await page.getByRole('link', { name: 'Plank diary', exact: true }).waitFor();
  });

  it('has a rhythm, whose next free place is offered, seen in the Calendar’s week, and taken', async () => {
    const id = await desk.newSeries({ name: 'Tide notes', pattern: 'tide_{title}' });
    await page.goto(`${home}/series/${id}`);
    await expect.poll(() => page.getByLabel('Name', { exact: true }).isEditable()).toBe(true);
    await choose(page.getByRole('combobox', { name: 'Rhythm' }), 'every day');
    await page.getByLabel('Time of day of the rhythm').fill('18:30');
    await page.getByText('all saved').waitFor();
    const videoId = await video('tide_one.mp4', { privacy: 'everyone' });
    await page.goto(`${home}/calendar`);
    await page.getByRole('button', { name: 'Week', exact: true }).click();
    await page.getByText('18:30').first().waitFor();
    await page.goto(`${home}/videos/${videoId}`);
    const offer = page.getByText('Next free place of “Tide notes”:');
    await offer.getByRole('button').click();
    await expect.poll(() => offer.count()).toBe(0);
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).values.opensAt?.wall).toMatch(/T18:30:00$/);
    // With another time, it is offered still.
    const { opensAt } = (await desk.lookAtSheet(videoId)).values;
    await desk.editVideo(videoId, { opensAt: { wall: '2099-03-01T12:00:00', zone: 'UTC' } });
    await offer.waitFor();
    await desk.editVideo(videoId, { opensAt });
    await offer.waitFor({ state: 'detached' });
    await page.goto(`${home}/calendar`);
    // The place of today or of tomorrow; on a Sunday evening that is in the week after.
    const link = page.getByRole('link', { name: /18:30 One/ }).first();
    const isThisWeek = await link.waitFor({ timeout: 10_000 }).then(
      () => true,
      () => false,
    );
    if (!isThisWeek) await page.getByRole('button', { name: 'Later' }).click();
    await link.waitFor();
    await page.getByRole('button', { name: 'Month', exact: true }).click();
  });
});

describe('two releases on one channel', () => {
  it('that are too near are said, and stop nothing', async () => {
    const channelId = (await desk.channelsOfTheYard()).get('Tide Notes') ?? '';
    await desk.editDefaults({ layer: 'channel', owner: channelId }, { hoursApart: 24 });
    const inHours = (hours: number) => new Date(Date.now() + hours * 3_600_000).toISOString().slice(0, 19);
    const at = (wall: string) => ({ release: 'at a time', opensAt: { wall, zone: 'UTC' }, privacy: 'everyone' });
    await video('first-of-two.mp4', at(inHours(90)), 'Tide Notes');
    const second = await video('second-of-two.mp4', at(inHours(96)), 'Tide Notes');
    await page.goto(`${home}/videos/${second}`);
    await page.getByText('there is to be a day between two releases there').waitFor();
    await page.getByRole('link', { name: 'First of two' }).waitFor();
    await page.getByRole('button', { name: 'Send to Tide Notes' }).click();
    await desk.untilSheet(second, (sheet) => desk.onlyDrop(sheet).state === 'held');
    await page.goto(`${home}/calendar`);
    await page.getByRole('button', { name: 'List', exact: true }).click();
    await page.getByRole('link', { name: /Second of two.*too near to “First of two” on Tide Notes/ }).waitFor();
    await page.getByRole('link', { name: /First of two.*too near to “Second of two” on Tide Notes/ }).waitFor();
    await page.getByRole('button', { name: 'Month', exact: true }).click();
  });
});

describe('the disk', () => {
  it('says what videos take, and gives a file away after a question', async () => {
    const videoId = await video('on-the-disk.mp4', { privacy: 'private' });
    await desk.sendVideo(videoId);
    await desk.untilSheet(videoId, (sheet) => desk.onlyDrop(sheet).state === 'live');
    await page.goto(`${home}/series`);
    const disk = part('On this disk');
    await disk.getByRole('button', { name: 'Delete its file: On the disk' }).click();
    await sure().getByText('What is at the sites stays').waitFor();
    await sure().getByRole('button', { name: BUTTONS.notNow }).click();
    expect((await desk.lookAtSheet(videoId)).cut?.gone).not.toBe(true);
    await disk.getByRole('button', { name: 'Delete its file: On the disk' }).click();
    await sure().getByRole('button', { name: 'Delete the file' }).click();
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).cut?.gone).toBe(true);
    expect(desk.onlyDrop(await desk.lookAtSheet(videoId)).state).toBe('live');
  });
});

describe('a webhook', () => {
  const heard: string[] = [];
  const server = createServer((request, response) => {
    let body = '';
    request.on('data', (data) => {
      body += data;
    });
    request.on('end', () => {
      heard.push(`${request.headers['kettle-signature']} ${body}`);
      response.end();
    });
  });
  beforeAll(() => new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve)));
  afterAll(() => server.close());

  it('is set, tried, and told what happens, signed', async () => {
    await page.goto(`${home}/notices`);
    const form = part('How you are told');
    const address = form.getByLabel('Address', { exact: true });
    await address.fill(`http://127.0.0.1:${(server.address() as AddressInfo).port}/hook`);
    await address.blur();
    // It is on once its address is right.
    const ticked = () => form.getByRole('checkbox', { name: /^By webhook/ }).isChecked();
    await expect.poll(ticked).toBe(true);
    await form
      .getByRole('button', { name: /^Send a trial/ })
      .last()
      .click();
    await expect.poll(() => heard.length).toBeGreaterThan(0);
    expect(heard[0]).toMatch(/^sha256=[0-9a-f]{64} \{/);
    await address.fill('hook at home');
    await address.blur();
    await page.getByText('A webhook’s address begins with http:// or https://.').first().waitFor();
    await address.fill('');
    await address.blur();
    await expect.poll(ticked).toBe(false);
  });
});

describe('several videos', () => {
  it('get no value that nobody has chosen', async () => {
    await video('bulk-none.mp4', {});
    await page.goto(home);
    await page.getByRole('checkbox', { name: /Bulk none/ }).click();
    await part('What to do with the selected videos').getByRole('button', { name: 'Set a field' }).click();
    const form = page.getByRole('dialog', { name: 'Set a field: 1 selected' });
    await form.getByRole('button', { name: BUTTONS.goOn }).click();
    await form.getByText('Choose a value first.').waitFor();
    expect(await sure().count()).toBe(0);
    await choose(form.getByLabel('Value'), 'Only me');
    await form.getByRole('button', { name: BUTTONS.goOn }).click();
    await sure().getByText('Change 1 video?').waitFor();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  });

  it('are sent together after one question, and opened together after another', async () => {
    const ids: string[] = [];
    for (const name of ['bulk-one.mp4', 'bulk-two.mp4']) {
      ids.push(await video(name, { privacy: 'everyone', release: 'on my word' }));
    }
    const states = async () => Promise.all(ids.map(async (id) => desk.onlyDrop(await desk.lookAtSheet(id)).state));
    await page.goto(home);
    const bar = part('What to do with the selected videos');
    const select = async () => {
      for (const name of ['Bulk one', 'Bulk two']) await page.getByRole('checkbox', { name: new RegExp(name) }).click();
    };
    await select();
    await bar.getByRole('button', { name: 'Send', exact: true }).click();
    await sure().getByText('2 videos').first().waitFor();
    await sure().getByRole('button', { name: 'Send', exact: true }).click();
    await expect.poll(states).toEqual(['held', 'held']);
    await page.goto(home);
    await select();
    await bar.getByRole('button', { name: 'Open', exact: true }).click();
    await sure()
      .getByText(/everyone/)
      .first()
      .waitFor();
    await sure().getByRole('button', { name: 'Open', exact: true }).click();
    // Until their word takes effect, one press stops all of them.
    const many = part('Many videos');
    await many.getByText(/^Opens in \d+ s: 2 videos$/).waitFor();
    await many.getByRole('button', { name: BUTTONS.stop }).click();
    await page.getByText('Stopped: not opened in 2 places.').first().waitFor();
    await many.getByText('Stopped. What had not opened stays closed.').waitFor();
    const words = async () => Promise.all(ids.map(async (id) => desk.onlyDrop(await desk.lookAtSheet(id)).onWord));
    expect(await words()).toEqual([false, false]);
    expect(await states()).toEqual(['held', 'held']);
    await page.goto(home);
    await select();
    await bar.getByRole('button', { name: 'Open', exact: true }).click();
    await sure().getByRole('button', { name: 'Open', exact: true }).click();
    await expect.poll(states).toEqual(['live', 'live']);
  });
});

import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { chromium, type Page } from 'playwright-core';

const address = `http://127.0.0.1:${process.env.KETTLE_PORT ?? 7300}`;
const folder = path.resolve('docs/screenshots');

interface Drop {
  video: string;
  drop: string;
  title: string;
  site: string;
  link: string;
}

const drops = JSON.parse(
  execFileSync(process.execPath, ['bin/kettle.mjs', 'status', '--json'], { encoding: 'utf8' }),
) as Drop[];
const named = (title: string) => drops.find((drop) => drop.title.startsWith(title)) as Drop;

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu'],
});

/** Takes one picture of a page of the running demo. */
async function take(
  name: string,
  at: string,
  options: { dark?: boolean; width?: number; height?: number; before?: (page: Page) => Promise<void> } = {},
): Promise<void> {
  const { dark = false, width = 1280, height = 800, before } = options;
  const page = await browser.newPage({
    viewport: { width, height },
    colorScheme: dark ? 'dark' : 'light',
    timezoneId: 'Europe/Berlin',
  });
  await page.goto(at);
  await page.waitForTimeout(1500);
  await before?.(page);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  await page.close();
}

/** Opens a section of the Sheet that is folded, and shows it from its top. */
async function openSection(page: Page, name: string): Promise<void> {
  const section = page.getByRole('region', { name, exact: true });
  const head = section.getByRole('button', { name: new RegExp(`^${name}`) }).first();
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
  await page.waitForTimeout(900);
  await section.evaluate((each) => each.scrollIntoView());
  await page.waitForTimeout(300);
}

const untilSnag = (page: Page) =>
  page.getByRole('heading', { name: /videos? needs? you/ }).waitFor({ timeout: 180_000 });
const keel = named('Laying the keel');
await take('board', address, { before: untilSnag });
await take('board-dark', address, { dark: true });
await take('channels', `${address}/channels`);
await take('board-phone', address, { width: 390, height: 844 });
await take('sheet', `${address}/videos/${keel.video}`);
await take('sheet-chapters', `${address}/videos/${keel.video}`, {
  height: 900,
  before: async (page) => {
    await openSection(page, 'Chapters');
    await page.getByRole('slider', { name: 'Time ruler' }).click({ position: { x: 560, y: 30 } });
    await page.waitForTimeout(800);
  },
});
await take('sheet-words', `${address}/videos/${named('Caulking').video}`, {
  height: 1200,
  before: async (page) => {
    await openSection(page, 'Words');
    await page.getByRole('tab', { name: /Marrow Quay Tools/ }).click();
    await page.waitForTimeout(400);
  },
});
await take('series', `${address}/series`, {
  height: 1200,
  before: async (page) => {
    await page.getByRole('link', { name: 'Plank by Plank' }).click();
    await page.getByRole('heading', { level: 1, name: 'Plank by Plank' }).waitFor();
    await page.waitForTimeout(800);
  },
});
await take('links', `${address}/links`);
await take('sheet-phone', `${address}/videos/${named('Steaming').video}`, { width: 390, height: 844 });
await take('sheet-files', `${address}/videos/${named('Three knots').video}`, {
  height: 860,
  before: async (page) => {
    await openSection(page, 'The file');
    await page.evaluate(() => window.scrollBy(0, -90));
    await page.getByRole('button', { name: 'Leave off the end' }).click();
    await page.waitForTimeout(2500);
  },
});
await take('sheet-frame', `${address}/videos/${named('Three knots').video}`, {
  height: 900,
  before: async (page) => {
    await openSection(page, 'The file');
    await page.getByRole('button', { name: 'Move the upright frame' }).click();
    await page.waitForTimeout(1500);
    await page.getByRole('slider', { name: 'Time ruler' }).click({ position: { x: 200, y: 30 } });
    await page.getByRole('region', { name: 'Chapters' }).evaluate((section) => section.scrollIntoView());
    await page.evaluate(() => window.scrollBy(0, -90));
    await page.waitForTimeout(800);
  },
});
const caulking = drops.filter((drop) => drop.title.startsWith('Caulking'));
const dropOf = (title: string, site: string) =>
  drops.find((drop) => drop.title.startsWith(title) && drop.site === site)?.drop ?? '';
await take('drop-match', `${address}/drops/${dropOf('Steaming', 'lanternfold')}`, { height: 900 });
await take('drop-difference', `${address}/drops/${dropOf('Sharpening', 'lanternfold')}`, { height: 900 });
await take('notices', `${address}/notices`, { height: 900 });
const watched = caulking.find((drop) => drop.site === 'lanternfold')?.link;
if (watched) await take('watch', watched, { height: 1000 });
await take('calendar', `${address}/calendar`, {
  before: (page) => page.getByText('Ice on the slip').waitFor(),
});
await take('sheet-release', `${address}/videos/${named('Ice on the slip').video}`, {
  before: async (page) => {
    await openSection(page, 'Words');
    await page.getByLabel('Opens at', { exact: true }).evaluate((field) => field.scrollIntoView({ block: 'center' }));
    await page.waitForTimeout(800);
  },
});
await take('consent', `${address}/channels`, {
  before: async (page) => {
    await page
      .getByRole('region', { name: 'Lanternfold' })
      .getByRole('button', { name: /^Connect/ })
      .click();
    await page.getByRole('button', { name: /Wil Tarrant/ }).click();
    await page.waitForTimeout(500);
  },
});
await browser.close();

import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { choose, expectAccessible, expectReachable, itsBrowser, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';

const machine = itsPages({ settings: { web: { KETTLE_HOLD_SECONDS: '60' } } });
const { home } = machine;
const browser = itsBrowser();
let page: Page;
let videoId: string;

beforeAll(async () => {
  // Long enough to press a button before it is over.
  machine.start('web', { KETTLE_HOLD_SECONDS: '60' });
  const channels = await desk.channelsOfTheYard();
  const clip = makeClip({ name: 'ice-on-the-slip.mp4', seconds: 3, size: '320x180' });
  videoId = await desk.bringFile(clip, 'Tide Notes');
  await desk.tickChannel(videoId, channels.get('Marrow Quay Films') ?? '', true);
  await desk.editVideo(videoId, { privacy: 'everyone', title: 'Ice on the slip' });
  await desk.untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
  const context = await browser.newContext({ viewport: { width: 1280, height: 900 } });
  page = await (await withOpenSections(context)).newPage();
  await Promise.all([page.waitForResponse(/\/api\/sites$/), page.goto(`${home}/videos/${videoId}`)]);
});
const rail = () => page.getByRole('region', { name: 'Where it goes' });
const opensAt = () => page.getByLabel('Opens at', { exact: true });
const kept = async () => (await desk.lookAtSheet(videoId)).values;

describe('the time at which a video opens', () => {
  it('is missing until it is said, and leads to its place', async () => {
    await choose(page.getByRole('combobox', { name: 'How it opens' }), 'at a set time');
    await rail().getByRole('button', { name: 'Say at what time it opens' }).waitFor();
    await opensAt().waitFor();
    await expectReachable(page);
  });

  it('is typed as people say it, and seen in each site’s time, with the day that it prints', async () => {
    await opensAt().fill('sat 3:00');
    const there = page.getByText(
      /Lanternfold prints Fri .*, as it is (21|22|23):30 there: another day than yours, Sat/,
    );
    await there.waitFor();
    await opensAt().press('Enter');
    await expect.poll(async () => (await kept()).opensAt).toMatchObject({ zone: 'Europe/Berlin' });
    expect((await kept()).opensAt?.wall).toMatch(/T03:00:00$/);
    await rail().getByRole('button', { name: 'Say at what time it opens' }).waitFor({ state: 'detached' });
    await there.waitFor();
  });

  it('is asked about where it comes twice, and refused where it does not exist; the one before stays', async () => {
    const before = (await kept()).opensAt;
    await opensAt().fill('30 mar 2031 2:30');
    await page.getByText('does not exist in Europe/Berlin: the clocks go from 02:00 to 03:00').waitFor();
    await opensAt().press('Escape');
    await opensAt().fill('26 oct 2031 2:30');
    await page.getByRole('button', { name: 'After the clocks go back' }).click();
    await expect
      .poll(async () => (await kept()).opensAt)
      .toMatchObject({ wall: '2031-10-26T02:30:00', which: 'second' });
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(async () => (await kept()).opensAt).toEqual(before);
  });

  it('is asked about where its numbers may be day and month, or month and day', async () => {
    const before = (await kept()).opensAt;
    await opensAt().fill('12/04 18:30');
    await page.getByText(/That is .* 12 Apr .* or .* 4 Dec .*\. Say which one you mean\./).waitFor();
    // Leaving the field takes neither.
    await opensAt().press('Tab');
    expect((await kept()).opensAt).toEqual(before);
    await page.getByRole('button', { name: / 4 Dec / }).click();
    await expect
      .poll(async () => (await kept()).opensAt)
      .toMatchObject({ wall: expect.stringMatching(/^20\d\d-12-04T18:30:00$/), zone: 'Europe/Berlin' });
    // The answer holds from then on, until it is said otherwise.
    await opensAt().fill('11/03 9:00');
    await opensAt().press('Enter');
    await expect.poll(async () => (await kept()).opensAt?.wall).toMatch(/-11-03T09:00:00$/);
    await page.getByRole('button', { name: 'Always read dates with the day first' }).click();
    await expect.poll(async () => (await kept()).opensAt?.wall).toMatch(/-03-11T09:00:00$/);
    await desk.editVideo(videoId, { opensAt: before });
    // The page has heard of it.
    await expect.poll(() => opensAt().inputValue()).toMatch(/, 03:00$/);
  });

  it('keeps the zone that it was said in through every edit, which can be typed and chosen', async () => {
    const before = (await kept()).opensAt;
    const isSaid = (wall: RegExp, zone: string) =>
      expect.poll(async () => (await kept()).opensAt).toMatchObject({ wall: expect.stringMatching(wall), zone });
    await opensAt().fill('15 feb 2031 9:00 new york');
    await opensAt().press('Enter');
    await isSaid(/^2031-02-15T09:00/, 'America/New_York');
    await opensAt().fill('15 feb 2031 9:30');
    await opensAt().press('Enter');
    await isSaid(/^2031-02-15T09:30/, 'America/New_York');
    await page.getByRole('button', { name: 'Choose the day it opens' }).click();
    await page.getByRole('dialog', { name: 'Choose the day it opens' }).getByRole('button', { name: / 18/ }).click();
    await isSaid(/^2031-02-18T09:30/, 'America/New_York');
    await choose(page.getByRole('combobox', { name: 'Time zone' }), 'Asia/Tokyo');
    await isSaid(/^2031-02-18T09:30/, 'Asia/Tokyo');
    await page.getByText('Where you are: Tue 18 Feb, 01:30').waitFor();
    await desk.editVideo(videoId, { opensAt: before });
    await expect.poll(() => opensAt().inputValue()).toMatch(/, 03:00$/);
  });

  it('stands on the Board and in the rail once it is ready', async () => {
    await page.getByRole('button', { name: 'Send to two channels' }).click();
    await desk.untilSheet(
      videoId,
      ({ channels }) => channels.filter(({ drop }) => drop?.state === 'held' && drop.opensAt).length === 2,
    );
    await expect
      .poll(() =>
        rail()
          .getByText(/^Opens Sat \d+ \w+, 03:00 CES?T$/)
          .count(),
      )
      .toBe(2);
    const board = await browser.newPage();
    await board.goto(home);
    await board
      .getByText(/Opens Sat \d+ \w+, 03:00/)
      .first()
      .waitFor();
    await board.close();
  });
});

describe('opening by a word', () => {
  it('says what follows, opens all channels by one press, and can be stopped for a moment', async () => {
    await rail().getByRole('button', { name: 'Open on two channels' }).click();
    const asked = page.getByRole('alertdialog');
    await asked.getByText('that cannot be taken back').waitFor();
    await asked.getByRole('button', { name: BUTTONS.openIt }).click();
    await expect
      .poll(() =>
        rail()
          .getByText(/^Opens in \d+ s$/)
          .count(),
      )
      .toBe(2);
    for (let left = 2; left > 0; left -= 1) {
      await expect.poll(() => rail().getByRole('button', { name: BUTTONS.notYet }).count()).toBe(left);
      await rail().getByRole('button', { name: BUTTONS.notYet }).first().click();
    }
    await expect
      .poll(() =>
        rail()
          .getByText(/^Opens Sat \d+ \w+, 03:00 CES?T$/)
          .count(),
      )
      .toBe(2);
    const { channels } = await desk.lookAtSheet(videoId);
    expect(channels.flatMap(({ drop }) => drop?.openedTo ?? [])).toEqual([]);
  });
});

describe('another way to open, chosen for what is held', () => {
  const way = () => page.getByRole('combobox', { name: 'How it opens' });

  it('is kept once it is said in full; until then it opens as before, and the page says how', async () => {
    const before = await kept();
    await choose(way(), 'when I say so');
    await expect.poll(() => rail().getByText('Ready to open', { exact: true }).count()).toBe(2);
    await choose(way(), 'on all channels together');
    await page.getByText('Say when. Until then it opens as before: when I say so.').waitFor();
    await expectAccessible(page.locator('#privacy'));
    await page.getByRole('button', { name: BUTTONS.openOnceChecked }).click();
    await page.getByRole('alertdialog').getByRole('button', { name: BUTTONS.notNow }).click();
    expect((await kept()).release).toBe('on my word');
    await page.getByLabel('Not before', { exact: true }).fill('in 3 h');
    await page.getByLabel('Not before', { exact: true }).press('Enter');
    await expect.poll(async () => (await kept()).release).toBe('together');
    await page.getByText('Say when. Until then').waitFor({ state: 'detached' });
    await expect
      .poll(() =>
        rail()
          .getByText(/^Opens /)
          .count(),
      )
      .toBe(2);
    const { channels } = await desk.lookAtSheet(videoId);
    expect(channels.flatMap(({ drop }) => drop?.openedTo ?? [])).toEqual([]);
    await desk.editVideo(videoId, { release: before.release, opensAt: before.opensAt });
  });
});

describe('the Calendar', () => {
  const shownOn = async (calendar: Page) => {
    const day = calendar.locator('section', { has: calendar.getByRole('link', { name: /Ice on the slip/ }) });
    return (await day.count()) === 1 ? day.getAttribute('aria-label') : undefined;
  };

  it('shows what opens, moves it by keys or by hand to another day, and takes that back', async () => {
    // A week later, so that the day before is to come, too.
    const { opensAt: now } = await kept();
    const later = new Date(Date.parse(`${now?.wall.slice(0, 10)}T00:00:00Z`) + 7 * 86_400_000);
    const wall = `${later.toISOString().slice(0, 10)}T03:00:00`;
    await desk.editVideo(videoId, { opensAt: { wall, zone: 'Europe/Berlin' } });
    const context = await browser.newContext({ viewport: { width: 1280, height: 900 } });
    const calendar = await context.newPage();
    await calendar.goto(`${home}/calendar`);
    await calendar.getByRole('button', { name: 'List', exact: true }).click();
    const link = calendar.getByRole('link', { name: /03:00 Ice on the slip/ });
    await link.waitFor();
    expect(await shownOn(calendar)).toMatch(/^Saturday/);
    await expectReachable(calendar);
    await link.press('Shift+ArrowRight');
    await expect.poll(() => shownOn(calendar)).toMatch(/^Sunday/);
    // It keeps the keys, wherever it goes.
    const inHand = () => calendar.evaluate(() => document.activeElement?.textContent ?? '');
    await expect.poll(inHand).toContain('Ice on the slip');
    await calendar.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => shownOn(calendar)).toMatch(/^Monday/);
    for (const day of [/^Sunday/, /^Saturday/]) {
      await calendar.getByRole('button', { name: BUTTONS.undoMove }).click();
      await expect.poll(() => shownOn(calendar)).toMatch(day);
    }

    // By hand, to the day beside it; the week of its day may be that of the next month.
    await calendar.getByRole('button', { name: 'Month', exact: true }).click();
    const label = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' })
      .format(later)
      .replace(',', '');
    const onIt = calendar.locator(`section[aria-label="${label}"]`);
    await calendar.locator('section').nth(27).waitFor();
    if ((await onIt.count()) === 0) await calendar.getByRole('button', { name: 'Later' }).click();
    await link.waitFor();
    const before = await shownOn(calendar);
    const [box, day] = [
      await link.boundingBox(),
      await calendar.locator(`section[aria-label="${before}"]`).boundingBox(),
    ];
    if (!box || !day) throw new Error('not shown');
    await calendar.mouse.move(box.x + 20, box.y + 8);
    await calendar.mouse.down();
    await calendar.mouse.move(box.x + 20, box.y + 8 - 20, { steps: 3 });
    await calendar.mouse.move(box.x + 20 - day.width, box.y + 8, { steps: 8 });
    await calendar.mouse.up();
    await expect.poll(() => shownOn(calendar)).toMatch(/^Friday/);
    expect(new URL(calendar.url()).pathname).toBe('/calendar');
    await calendar.getByRole('button', { name: BUTTONS.undoMove }).click();
    await expect.poll(() => shownOn(calendar)).toBe(before);
    // To the edge of what is shown, which does not scroll away under it.
    const edge = calendar.locator('main section').last();
    const [start, last] = [await link.boundingBox(), await edge.boundingBox()];
    if (!start || !last) throw new Error('not shown');
    await calendar.mouse.move(start.x + 20, start.y + 8);
    await calendar.mouse.down();
    await calendar.mouse.move(start.x + 30, start.y + 20, { steps: 3 });
    await calendar.mouse.move(last.x + 30, last.y + last.height - 12, { steps: 8 });
    expect(await calendar.locator('main .overflow-x-auto').evaluate((grid) => grid.scrollTop)).toBe(0);
    await calendar.mouse.up();
    await expect.poll(() => shownOn(calendar)).toBe(await edge.getAttribute('aria-label'));
    await calendar.getByRole('button', { name: BUTTONS.undoMove }).click();
    await expect.poll(() => shownOn(calendar)).toBe(before);
    await calendar.getByRole('button', { name: 'Subscribe' }).click();
    await calendar.getByRole('button', { name: 'Make the address' }).click();
    const address = await calendar.getByLabel('Calendar address').inputValue();
    const answer = await fetch(address);
    expect(answer.headers.get('content-type')).toBe('text/calendar; charset=utf-8');
    expect(await answer.text()).toContain('Ice on the slip');
    await expectReachable(calendar);
    await calendar.keyboard.press('Escape');
    const lines = [
      'BEGIN:VEVENT',
      'SUMMARY:Ice on the slip',
      'DTSTART;TZID=Europe/Berlin:20300308T193000',
      'END:VEVENT',
    ];
    const others = ['BEGIN:VEVENT', 'SUMMARY:Nobody knows it', 'DTSTART:20300308T193000Z', 'END:VEVENT'];
    const file = ['BEGIN:VCALENDAR', ...lines, ...others, 'END:VCALENDAR'].join('\r\n');
    await calendar
      .getByLabel('Calendar file')
      .setInputFiles({ name: 'plan.ics', mimeType: 'text/calendar', buffer: Buffer.from(file) });
    await calendar.getByText('Line 6: “Nobody knows it”, there is no video with this title').waitFor();
    await expectReachable(calendar);
    await calendar.getByRole('button', { name: 'Set this time' }).click();
    await expect
      .poll(async () => (await kept()).opensAt)
      .toMatchObject({ wall: '2030-03-08T19:30:00', zone: 'Europe/Berlin' });
    await context.close();
  });
});

describe('a first showing', () => {
  it('is announced by its site, begins at its time, and all who come see the same moment and can talk', async () => {
    const clip = makeClip({ name: 'the-launch.mp4', seconds: 40, size: '320x180' });
    const id = await desk.bringFile(clip, 'Tide Notes');
    await desk.untilSheet(id, ({ cut }) => cut?.state === 'ready');
    await page.goto(`${home}/videos/${id}`);
    await page.getByRole('radio', { name: /^Everyone/ }).check();
    await choose(page.getByRole('combobox', { name: 'How it opens' }), 'as a first showing, at a set time');
    await page.getByText('everyone can see its page on Tide Notes, with title and picture').waitFor();
    const wallIn = (seconds: number) => new Date(Date.now() + seconds * 1000).toISOString().slice(0, 19);
    await desk.editVideo(id, { opensAt: { wall: wallIn(3600), zone: 'UTC' } });
    await rail().getByRole('button', { name: 'Send to Tide Notes' }).click();
    await desk.untilSheet(id, (sheet) => desk.onlyDrop(sheet).state === 'held');
    const { link = '' } = desk.onlyDrop(await desk.lookAtSheet(id));
    const [first, second] = [await browser.newPage(), await browser.newPage()];
    await expect.poll(async () => (await fetch(link)).text()).toContain('First showing in');
    expect((await fetch(`${link}/video.mp4`)).status).toBe(404);
    expect((await fetch(`${link}/thumbnail`)).status).toBe(200);
    const at = Math.ceil(Date.now() / 1000) * 1000 + 10_000;
    await desk.editVideo(id, { opensAt: { wall: new Date(at).toISOString().slice(0, 19), zone: 'UTC' } });
    await first.goto(link);
    await first.getByLabel('Name').fill('Wil');
    await first.getByLabel('What you say').fill('Almost there');
    await first.getByRole('button', { name: 'Say it' }).click();
    await first.locator('video').waitFor();
    await second.goto(link);
    await second.getByText('Wil: Almost there').waitFor();
    expect(Date.now()).toBeGreaterThanOrEqual(at);
    const moment = (on: Page) => on.evaluate(() => document.querySelector('video')?.currentTime ?? 0);
    await expect.poll(async () => (await moment(second)) > 0 && (await moment(first)) > 0).toBe(true);
    await expect
      .poll(async () => {
        const [a, b] = await Promise.all([moment(first), moment(second)]);
        const since = (Date.now() - at) / 1000;
        return Math.max(Math.abs(a - b), Math.abs(a - since));
      })
      .toBeLessThan(1);
    await desk.untilSheet(id, (sheet) => desk.onlyDrop(sheet).state === 'live');
    await Promise.all([first.close(), second.close()]);
  });
});

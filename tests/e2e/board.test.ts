import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { STATE_WORDS } from '@/core/drop';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { choose, expectAccessible, itsBrowser } from '../setup/browser';
import { itsPages } from '../setup/its-pages';
import { stepsInOrder } from '../setup/steps';

const machine = itsPages({ without: ['worker'] });
const { home } = machine;
const browser = itsBrowser();
let page: Page;
let ids: string[];

stepsInOrder();

beforeAll(async () => {
  const channels = [...(await desk.channelsOfTheYard()).values()];
  ids = await desk.manyVideos(600, channels);
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
});
const videos = () => page.getByRole('region', { name: 'Videos' });
const drawn = () => videos().locator('a[href^="/videos/"]').count();
const chip = (name: RegExp) => page.getByRole('group', { name: 'Which videos' }).getByRole('button', { name });

describe('a Board of 600 videos on six channels', () => {
  it('comes as its first part, with how many there are of everything', async () => {
    const html = await (await fetch(home)).text();
    expect(html.length).toBeLessThan(1_000_000);
    expect((await (await fetch(`${home}/api/board`)).text()).length).toBeLessThan(150_000);
    await page.goto(home);
    await page.getByRole('heading', { name: '60 videos need you' }).waitFor();
    await chip(/^All 600$/).waitFor();
    await chip(/^Needs you 60$/).waitFor();
    await chip(/^Live 360$/).waitFor();
    expect(await drawn()).toBeLessThan(45);
    await expectAccessible(page);
  });

  it('is read on as one scrolls, and only what is in view is drawn', async () => {
    await videos().focus();
    await expect
      .poll(
        async () => {
          await page.keyboard.press('End');
          return videos().getByText('Plank 0 of the long boat', { exact: true }).count();
        },
        { interval: 200 },
      )
      .toBe(1);
    expect(await drawn()).toBeLessThan(45);
  });

  it('is narrowed by group, words, series and channel; the address keeps that', async () => {
    await chip(/^Not sent/).click();
    await expect.poll(() => videos().getByRole('rowheader').count()).toBe(1);
    expect(page.url()).toContain('group=on+the+desk');
    await page.getByRole('searchbox').fill('plank 56');
    await videos().getByText('Plank 566 of the long boat').waitFor();
    await expect.poll(drawn).toBe(2);
    await chip(/^Not sent 2$/).waitFor();
    await page.reload();
    await expect.poll(drawn).toBe(2);
    expect(await page.getByRole('searchbox').inputValue()).toBe('plank 56');
    await page.getByRole('searchbox').fill('no such thing');
    await page.getByText('No video fits what you chose.').waitFor();
    await page.getByRole('button', { name: BUTTONS.showAll }).click();
    await chip(/^All 600$/).waitFor();
    expect(page.url()).toBe(`${home}/`);
    // The place's own name in the bar leads to all of it, too.
    await chip(/^Not sent/).click();
    await page.getByRole('link', { name: 'Board', exact: true }).click();
    await expect.poll(() => chip(/^All/).getAttribute('aria-pressed')).toBe('true');
    await choose(page.getByLabel('Order'), 'by title');
    await videos().getByText('Plank 0 of the long boat').waitFor();
    await choose(page.getByLabel('Order'), 'what needs you first');
  });

  it('finds a video by a link that led to it before, and says which leads to it now', async () => {
    const old = 'http://127.0.0.1:9/watch/gone-1';
    const ofVideo = { videoId: ids[3] ?? '' };
    const drop: { link: string } = await desk.transaction(async (trx) => {
      const [first] = await trx('drops').where(ofVideo).orderBy('id').select('id');
      const link = 'http://127.0.0.1:9/watch/here-1';
      await trx('drops')
        .where(first)
        .update({ state: 'live', link, formerLinks: JSON.stringify([old]) });
      return { link };
    });
    await page.goto(`${home}/?find=${encodeURIComponent(old)}`);
    const led = videos().getByText(/^○ That link led here, on .*\. Its link now:/);
    await led.waitFor();
    expect(await led.getByRole('button').getAttribute('data-tip')).toBe(drop.link);
    expect(await videos().getByRole('row').count()).toBeLessThan(4);
    await page.goto(home);
  });

  it('says of what is not sent how much is missing, for the rows in view', async () => {
    await chip(/^Not sent/).click();
    await videos()
      .getByText(/▲ \d+ to settle/)
      .first()
      .waitFor();
    await page.getByRole('button', { name: BUTTONS.showAll }).click();
  });

  it('reads the row that has changed, and not the page', async () => {
    await page.goto(home);
    await videos().getByText('Plank 599 of the long boat').waitFor();
    const asked: string[] = [];
    page.on('request', (request) => {
      const { pathname, search } = new URL(request.url());
      if (pathname.startsWith('/api/board')) asked.push(pathname + search);
    });
    const id = ids[599] ?? '';
    await desk.editVideo(id, { title: 'Renamed while somebody looks' });
    await videos().getByText('Renamed while somebody looks').waitFor();
    // What is read on the way down asks for what comes after a row; nothing asks for the page again.
    const parts = asked.filter((each) => each.startsWith('/api/board?') && !each.includes('after='));
    expect(parts.filter((each) => !each.includes(`ids=${id}`))).toEqual([]);
    expect(parts.length).toBeGreaterThan(0);
    expect(asked.length).toBeLessThan(8);
  });

  it('is in as many tabs as one likes: they share one stream of changes, and the next takes it on when its tab goes', async () => {
    const context = await browser.newContext();
    let streams = 0;
    context.on('request', (request) => {
      if (new URL(request.url()).pathname === '/api/changes') streams += 1;
    });
    const tabs: Page[] = [];
    for (let n = 0; n < 8; n += 1) {
      const tab = await context.newPage();
      // A browser keeps six lines to one address: with a stream in each tab the seventh would never come.
      await tab.goto(home);
      await tab.getByRole('heading', { level: 1 }).waitFor();
      tabs.push(tab);
    }
    expect(streams).toBe(1);
    await desk.editVideo(ids[589] ?? '', { title: 'Heard in the last tab' });
    await tabs[7]?.getByText('Heard in the last tab').waitFor();
    await tabs[0]?.close();
    await expect.poll(() => streams).toBe(2);
    await desk.editVideo(ids[589] ?? '', { title: 'Heard when the first was gone' });
    await tabs[7]?.getByText('Heard when the first was gone').waitFor();
    await desk.editVideo(ids[589] ?? '', { title: 'Plank 589 of the long boat' });
    await context.close();
  });

  it('opens what is ready, after one question, and tries again what has a snag, in the cell', async () => {
    await page.goto(home);
    await chip(/^Ready to open/).click();
    const ready = videos().getByRole('row', { name: /Plank 597 / });
    await ready.getByRole('button', { name: 'Open on Tide Notes', exact: true }).click();
    const sure = page.getByRole('alertdialog', { name: 'Open it to everyone on Tide Notes?' });
    await sure.getByRole('button', { name: BUTTONS.notNow }).click();
    expect(await ready.getByRole('button', { name: 'Open on Tide Notes', exact: true }).count()).toBe(1);
    await ready.getByRole('button', { name: 'Open on Tide Notes', exact: true }).click();
    await sure.getByRole('button', { name: BUTTONS.openIt }).click();
    // No worker runs here that opens it: until one does, it can be stopped.
    await ready.getByText(/^Opens in /).waitFor();
    expect(await ready.getByRole('button', { name: 'Open on Tide Notes', exact: true }).count()).toBe(0);
    await ready.getByRole('button', { name: 'Do not open on Tide Notes yet' }).click();
    await ready.getByRole('button', { name: 'Open on Tide Notes', exact: true }).waitFor();
    await chip(/^Needs you/).click();
    const snag = videos().getByRole('row', { name: /Plank 589 / });
    await snag.getByRole('button', { name: 'Try again on Quay School' }).click();
    await snag.getByText(STATE_WORDS.landing, { exact: true }).waitFor();
    expect(await snag.getByRole('button', { name: 'Try again on Quay School' }).count()).toBe(0);
  });

  it('is there at phone width', async () => {
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(home);
    await videos().getByRole('link').first().waitFor();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});

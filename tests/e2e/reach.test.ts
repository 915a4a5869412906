import type { BrowserContextOptions, Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { expectReachable, itsBrowser, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let videoId: string;
let seriesId: string;

/** A video on every channel, whose words are as long as they can be. */
async function longVideo(): Promise<string> {
  const fileName = `${'a-very-long-name-for-a-file-'.repeat(7)}.mp4`;
  const brought = await desk.bringLocalFile(makeClip({ name: 'reach.mp4', seconds: 2 }), { fileName, anyway: true });
  await desk.editVideo(brought.videoId, {
    title: 'w'.repeat(96),
    tags: { way: 'replace', items: ['t'.repeat(60), 'another-tag-without-a-space-that-goes-on-and-on-and-on'] },
    links: { way: 'replace', items: [{ label: '', url: `https://yard.example/${'x'.repeat(180)}` }] },
    countries: { way: 'everywhere but', codes: ['CA', 'GB', 'NZ'] },
  });
  for (const id of (await desk.channelsOfTheYard()).values()) await desk.tickChannel(brought.videoId, id, true);
  await desk.untilSheet(brought.videoId, (sheet) => sheet.cut?.state === 'ready');
  return brought.videoId;
}

beforeAll(async () => {
  await desk.channelsOfTheYard();
  videoId = await longVideo();
  // The same file once more, which the Sheet says.
  await longVideo();
  seriesId = await desk.newSeries({ name: 'Reach', pattern: 'reach_{title}' });
});
const places = () => ['/', `/videos/${videoId}`, '/series', `/series/${seriesId}`, '/links', '/channels'];

/** A page of a browser of its own, with all sections of the Sheet open, at a place. */
async function open(at: string, options: BrowserContextOptions = {}): Promise<Page> {
  const settings = { viewport: { width: 1280, height: 800 }, ...options };
  const page = await (await withOpenSections(await browser.newContext(settings))).newPage();
  const answer = await page.goto(`${home}${at}`);
  expect([at, answer?.status()]).toEqual([at, 200]);
  await atRest(page);
  return page;
}

/** Waits until what is loaded when it comes into view, or when the page rests, is there, too: nothing is added any more. */
async function atRest(page: Page): Promise<void> {
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const rest = () => {
          watching.disconnect();
          resolve();
        };
        let timer = setTimeout(rest, 500);
        const watching = new MutationObserver(() => {
          clearTimeout(timer);
          timer = setTimeout(rest, 500);
        });
        watching.observe(document, { subtree: true, childList: true });
      }),
  );
}

const close = (page: Page) => page.context().close();

describe('every page', () => {
  it.each<[says: string, options: BrowserContextOptions]>([
    ['1280 wide', { viewport: { width: 1280, height: 844 } }],
    ['390 wide', { viewport: { width: 390, height: 844 } }],
    // What a browser makes of a window 1280 wide at 200 %.
    [
      'at 200 %, without motion',
      { viewport: { width: 640, height: 400 }, deviceScaleFactor: 2, reducedMotion: 'reduce' },
    ],
  ])('can be read and pressed by everybody, and never scrolls sideways: %s', async (says, options) => {
    const page = await open('/', options);
    for (const place of places()) {
      const answer = await page.goto(`${home}${place}`);
      expect([place, answer?.status()]).toEqual([place, 200]);
      await atRest(page);
      // Colours do not depend on the width.
      await expectReachable(page, says === '1280 wide' ? ['light', 'dark'] : ['light']);
    }
    await close(page);
  });

  // WCAG 2.2, 2.4.11: what has the focus is not hidden by what stands over the page.
  it('shows what has the focus, in the order in which one reads', async () => {
    for (const place of ['/', `/videos/${videoId}`]) {
      const page = await open(place);
      const hidden: string[] = [];
      let stops = 0;
      for (let tabs = 0; tabs < 90; tabs += 1) {
        await page.keyboard.press('Tab');
        const found = await page.evaluate(() => {
          const element = document.activeElement;
          if (!element || element === document.body) return undefined;
          const { left, right, top, bottom } = element.getBoundingClientRect();
          const at = (x: number, y: number) => {
            const over = document.elementFromPoint(x, y);
            return over !== null && (element.contains(over) || over.contains(element));
          };
          const middle = (left + right) / 2;
          const seen = [top + 2, (top + bottom) / 2, bottom - 2].some((y) => at(middle, y) || at(left + 3, y));
          return {
            seen,
            name: `${element.tagName} ${element.getAttribute('aria-label') ?? element.textContent?.slice(0, 40)}`,
          };
        });
        if (!found) break;
        stops += 1;
        if (!found.seen) hidden.push(found.name);
      }
      expect(hidden, place).toEqual([]);
      expect(stops).toBeGreaterThan(10);
      await close(page);
    }
  });
});

describe('what lies over a page', () => {
  /** The accessible name, or the words, of what has the focus. */
  const focused = (page: Page) =>
    page.evaluate(
      () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent?.trim(),
    );

  it('gives the focus back after Escape: lists, menus, panels, questions', async () => {
    const board = await open('/');
    const [panel, list] = [
      board.getByRole('button', { name: BUTTONS.views }),
      board.locator('[role=combobox]').first(),
    ];
    for (const button of [panel, list]) {
      await button.focus();
      const name = await focused(board);
      await board.keyboard.press('Enter');
      await expect.poll(() => button.getAttribute('data-state')).toBe('open');
      await board.keyboard.press('Escape');
      await expect.poll(() => button.getAttribute('data-state')).toBe('closed');
      expect(await focused(board)).toBe(name);
    }
    await close(board);
    const sheet = await open(`/videos/${videoId}`);
    const menu = sheet.getByRole('button', { name: /^tags: / });
    await menu.focus();
    await sheet.keyboard.press('Enter');
    await sheet.getByRole('menuitem').first().waitFor();
    await sheet.keyboard.press('Escape');
    await expect.poll(() => focused(sheet)).toMatch(/^tags: /);
    const own = sheet.getByRole('button', { name: /Same text as elsewhere/ }).first();
    await own.focus();
    await sheet.keyboard.press('Enter');
    await sheet.getByRole('dialog').waitFor();
    await sheet.keyboard.press('Escape');
    await expect.poll(() => focused(sheet)).toMatch(/Same text as elsewhere/);
    const away = sheet.getByRole('button', { name: BUTTONS.deleteVideo });
    await away.focus();
    await sheet.keyboard.press('Enter');
    await sheet.getByRole('alertdialog').waitFor();
    await sheet.keyboard.press('Escape');
    await expect.poll(() => focused(sheet)).toBe('Delete this video');
    await close(sheet);
  });

  it('tells more of what the pointer rests on or the keys reach, until Escape', async () => {
    const page = await open(`/videos/${videoId}`);
    const undo = page.getByRole('button', { name: BUTTONS.undo });
    await undo.hover();
    await page.getByRole('tooltip', { name: 'Undo (Ctrl Z)' }).waitFor();
    await page.mouse.move(0, 0);
    await expect.poll(() => page.locator('#tip').count()).toBe(0);
    // A key was pressed, so that the focus is one of keys.
    await page.keyboard.press('Shift');
    await undo.focus();
    await page.locator('#tip').waitFor();
    await page.keyboard.press('Escape');
    await expect.poll(() => page.locator('#tip').count()).toBe(0);
    expect(await focused(page)).toBe('Undo');
    await close(page);
  });

  it('opens also when it is asked for before it has come, on a slow line', async () => {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    const named = new Set(
      [...(await (await fetch(home)).text()).matchAll(/chunks\/([\w.~-]+\.js)/g)].map(([, file]) => file),
    );
    let slow = true;
    await page.route(/chunks\/.*\.js$/, async (route) => {
      if (slow && !named.has(route.request().url().split('/').pop())) {
        await new Promise((resolve) => setTimeout(resolve, 3000));
      }
      await route.continue().catch(() => undefined);
    });
    await Promise.all([page.waitForResponse(/\/api\/many$/), page.goto(home)]);
    const views = page.getByRole('button', { name: BUTTONS.views });
    await views.focus();
    await page.keyboard.press('Enter');
    expect(await page.getByRole('dialog', { name: 'Views' }).count()).toBe(0);
    await page.getByRole('dialog', { name: 'Views' }).waitFor();
    slow = false;
    await page.keyboard.press('Escape');
    await expect.poll(() => focused(page)).toBe('Views');
    await close(page);
  });
});

import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { choose, expectAccessible, itsBrowser } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let page: Page;
let ids: string[];

beforeAll(async () => {
  await desk.channelsOfTheYard();
  // On no channel, so that nothing of them moves by itself.
  ids = await desk.manyVideos(40, []);
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
});
/** Opens the Board and waits until its scripts run, which ask what was done with many videos last. */
const openBoard = () => Promise.all([page.waitForResponse(/\/api\/many$/), page.goto(home)]);
const tick = (title: string) => page.getByRole('checkbox', { name: `Select ${title} of the long boat`, exact: true });
const bar = () => page.getByRole('region', { name: 'What to do with the selected videos' });
const told = () => page.getByRole('region', { name: 'Many videos' });
const tagsOf = async (id: string | undefined) => (await desk.lookAtSheet(id ?? '')).own.tags?.items;

describe('many videos on the Board', () => {
  it('are selected one by one, in a range, by keys, and all that fit', async () => {
    await openBoard();
    await tick('Plank 39').click();
    await bar().getByText('1 selected').waitFor();
    await tick('Plank 36').click({ modifiers: ['Shift'] });
    await bar().getByText('4 selected').waitFor();
    await tick('Plank 38').focus();
    await page.keyboard.press('Space');
    await bar().getByText('3 selected').waitFor();
    await page.keyboard.press('Escape');
    await expect.poll(() => bar().count()).toBe(0);
    await tick('Plank 39').click();
    await bar().getByRole('button', { name: 'Select all 40' }).click();
    await bar().getByText('40 selected').waitFor();
    await expectAccessible(bar());
    await bar().getByRole('button', { name: 'Clear' }).click();
  });

  it('get tags after one question, with how far it is, and undo takes them back', async () => {
    await openBoard();
    await tick('Plank 39').click();
    await tick('Plank 38').click();
    await bar().getByRole('button', { name: 'Add tags' }).click();
    await page.getByLabel('Tags, with commas').fill('keel, oak');
    await page.getByRole('button', { name: BUTTONS.goOn }).click();
    const sure = page.getByRole('alertdialog', { name: 'Change 2 videos?' });
    await expectAccessible(sure);
    await sure.getByRole('button', { name: 'Change', exact: true }).click();
    await told().getByText('Tags added: 2 videos').waitFor();
    expect(await tagsOf(ids[39])).toEqual(['keel', 'oak']);
    expect(await bar().count()).toBe(0);
    await told().getByRole('button', { name: BUTTONS.undo }).click();
    await page.getByText('Undone on 2 videos.').first().waitFor();
    await expect.poll(() => tagsOf(ids[39])).toBeUndefined();
  });

  it('say where nothing can be done, and what is deleted is gone', async () => {
    await openBoard();
    await tick('Plank 39').click();
    await bar().getByRole('button', { name: 'Send' }).click();
    await page.getByText('There is nothing to do with these videos').first().waitFor();
    await bar().getByRole('button', { name: BUTTONS.delete }).click();
    await page
      .getByRole('alertdialog', { name: 'Delete 1 video?' })
      .getByRole('button', { name: BUTTONS.delete })
      .click();
    await told().getByText('Deleted: 1 video').waitFor();
    await expect.poll(() => tick('Plank 39').count()).toBe(0);
  });

  it('are filtered by what they lack and sorted by a column, and the view is kept by name', async () => {
    await desk.editVideo(ids[0] ?? '', { summary: 'Words' });
    await openBoard();
    await page.getByRole('button', { name: 'Filter' }).click();
    await choose(page.getByRole('combobox', { name: 'Missing' }), 'no summary');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Not sent 38' }).waitFor();
    await page.getByRole('button', { name: 'Video', exact: true }).click();
    await tick('Plank 1').waitFor();
    expect(page.url()).toContain('lacks=summary');
    await page.getByRole('button', { name: BUTTONS.views }).click();
    await page.getByLabel('Name for what is shown now').fill('Without words');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: BUTTONS.showAll }).click();
    await page.getByRole('button', { name: 'Not sent 39' }).waitFor();
    await page.getByRole('button', { name: BUTTONS.views }).click();
    await page.getByRole('button', { name: 'Without words', exact: true }).click();
    await page.getByRole('button', { name: 'Not sent 38' }).waitFor();
    await page.getByRole('button', { name: 'Columns' }).click();
    await page.getByRole('checkbox', { name: 'Hide columns without a video' }).click();
    await expect.poll(() => page.getByRole('columnheader').count()).toBe(1);
    await page.keyboard.press('Escape');
  });

  it('that are dropped together on any page are checked in one list while they arrive', async () => {
    await page.goto(`${home}/channels`);
    const clips = ['one', 'two'].map((name, n) => makeClip({ name: `dropped-${name}.mp4`, seconds: 2 + n }));
    await page.getByLabel('Finished video files').setInputFiles(clips);
    const list = page.getByRole('region', { name: 'Just added' });
    await list.getByText('2 videos added').waitFor();
    await list.getByLabel('dropped-one.mp4').fill('A title of its own');
    await page.waitForTimeout(1200);
    await expectAccessible(page);
    await list.getByRole('button', { name: 'Done' }).click();
    await openBoard();
    await page.getByRole('link', { name: /A title of its own/ }).waitFor();
    // A file that is let go over a page without a place for it.
    const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-drop-'));
    writeFileSync(path.join(folder, 'none'), '');
    await page.goto(`${home}/links`);
    // The page listens once its scripts run.
    await page.waitForTimeout(1500);
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.items.add(new File(['only words'], 'let-go.mp4', { type: 'video/mp4' }));
      window.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    });
    await page.getByRole('heading', { level: 1, name: /let go/i }).waitFor();
  });
});

import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import { ensureBuild } from '../../bin/setup/build.mjs';
import { expectReachable, startBrowser, withOpenSections } from '../setup/browser';
import { startMachine } from '../setup/machine';
import { AAC, H264, made } from '../setup/made-files';

let machine: Awaited<ReturnType<typeof startMachine>>;
let desk: typeof import('../setup/at-desk');
let browser: Browser;
let page: Page;
let videoId: string;

/** Ten seconds that move, then three of black, with a tone that goes on. */
function blackTail(): string {
  const moving = ['-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=25:d=10'];
  const black = ['-f', 'lavfi', '-i', 'color=black:s=640x360:r=25:d=3'];
  const tone = ['-f', 'lavfi', '-i', 'sine=f=440:r=48000:d=13'];
  const joined = ['-filter_complex', '[0][1]concat=n=2:v=1:a=0[v]', '-map', '[v]', '-map', '2:a'];
  return made('tail.mp4', ...moving, ...black, ...tone, ...joined, ...H264, ...AAC, '-movflags', '+faststart');
}

beforeAll(async () => {
  await ensureBuild(path.resolve('.'));
  machine = await startMachine(['stand-ins', 'worker', 'web']);
  desk = await import('../setup/at-desk');
  await desk.channelsOfTheYard();
  ({ videoId } = await desk.bringLocalFile(blackTail(), { fileName: 'tail.mp4' }));
  await desk.untilSheet(videoId, ({ measured }) => measured === 'ready');
  browser = await startBrowser();
  page = await (await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 900 } }))).newPage();
  page.setDefaultTimeout(20_000);
  // Its scripts run once it asks for what was measured.
  await Promise.all([
    page.waitForResponse(/\/measures$/),
    page.goto(`http://127.0.0.1:${machine.env.KETTLE_PORT}/videos/${videoId}`),
  ]);
});
afterAll(async () => {
  await browser?.close();
  await desk?.closeDatabase();
  await machine?.end();
});

const file = () => page.getByRole('region', { name: 'The file' });
const TAIL = '3.0 s of black at the end, while the sound goes on';

describe('what is found in a file', () => {
  it('stands with the file and beside the channels, and leads to its moment', async () => {
    await file().getByText(TAIL).first().waitFor();
    const rail = page.getByRole('region', { name: 'Where it goes' });
    await rail.getByRole('button', { name: TAIL }).waitFor();
    await file().getByRole('button', { name: 'Go to 0:10' }).click();
    await page.waitForFunction(() => document.querySelector('video')?.currentTime === 10);
    await expectReachable(page);
  });

  it('leads to its moment also where the player is folded away', async () => {
    const other = await browser.newPage({ viewport: { width: 1280, height: 900 } });
    await Promise.all([other.waitForResponse(/\/api\/sites$/), other.goto(page.url())]);
    const chapters = other.getByRole('region', { name: 'Chapters' });
    expect(await chapters.locator('video').count()).toBe(0);
    await other.getByRole('button', { name: 'Go to 0:10' }).click();
    await other.waitForFunction(() => document.querySelector('video')?.currentTime === 10);
    await other.close();
  });

  it('warns no more once a person says that it is meant, with the reason; undo takes that back', async () => {
    await file().getByRole('button', { name: BUTTONS.intended }).first().click();
    await page.getByLabel('Why? (optional').fill('a pause for the credits');
    await page.getByRole('button', { name: 'Do not warn' }).click();
    await file().getByText('You said it is meant: a pause for the credits').waitFor();
    const rail = page.getByRole('region', { name: 'Where it goes' });
    await expect.poll(() => rail.getByRole('button', { name: TAIL }).count()).toBe(0);
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await rail.getByRole('button', { name: TAIL }).waitFor();
    expect((await desk.lookAtSheet(videoId)).wavedThrough).toEqual([]);
  });
});

import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { choose, itsBrowser, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { gatedFfmpeg } from '../setup/gated-ffmpeg';
import { itsPages } from '../setup/its-pages';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
/** Encoding waits as long as a step looks at it. */
const gate = gatedFfmpeg('libx264');
let page: Page;
const files = () => page.getByRole('region', { name: 'Files that go out' });

beforeAll(async () => {
  await desk.channelsOfTheYard();
  await machine.end('worker');
  await machine.start('worker', gate.env);
  const context = await browser.newContext({ viewport: { width: 1280, height: 900 } });
  page = await (await withOpenSections(context)).newPage();
});

/** A video whose file has to be encoded; its Sheet is open. */
async function encoded(fileName: string, seconds: number): Promise<string> {
  const clip = makeClip({ name: fileName, seconds });
  const videoId = await desk.bringFile(clip, 'Marrow Quay', fileName);
  await desk.untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
  await desk.editVideo(videoId, { privacy: 'private', file: { way: 'set', set: 'square' } });
  return videoId;
}
const making = async (videoId: string) => (await desk.lookAtSheet(videoId)).renditions[0]?.state;

describe('a file that is being made', () => {
  it('is held and goes on, another is made first, and one is stopped', async () => {
    gate.shut();
    const [one, two, three] = [
      await encoded('made-one.mp4', 3),
      await encoded('made-two.mp4', 4),
      await encoded('made-three.mp4', 5),
    ];
    for (const id of [one, two, three]) await desk.sendVideo(id);
    await page.goto(`${home}/videos/${one}`);
    await files()
      .getByRole('button', { name: /^Hold: file for/ })
      .click();
    await files()
      .getByText(/On hold/)
      .waitFor();
    await files()
      .getByRole('button', { name: `${BUTTONS.goOn}: file for Marrow Quay` })
      .click();
    await expect
      .poll(() =>
        files()
          .getByText(/On hold/)
          .count(),
      )
      .toBe(0);
    await page.goto(`${home}/videos/${three}`);
    const first = files().getByRole('button', { name: /^Make it first: file for/ });
    if ((await making(three)) === 'waiting') await first.click();
    await page.goto(`${home}/videos/${two}`);
    await files()
      .getByRole('button', { name: /^Stop making it: file for/ })
      .click();
    await expect.poll(() => making(two)).not.toBe('making');
    gate.open();
    for (const id of [one, three]) await desk.untilSheet(id, (sheet) => desk.onlyDrop(sheet).state === 'live');
    expect(desk.onlyDrop(await desk.lookAtSheet(two)).state).not.toBe('live');
  });

  it('is square where that is asked for, and says that its frame shows the middle until it is placed', async () => {
    gate.open();
    const videoId = await encoded('square.mp4', 3);
    await page.goto(`${home}/videos/${videoId}`);
    await files().getByText('The square file shows the middle of the picture.').waitFor();
    await choose(page.getByRole('combobox', { name: 'File settings' }), 'Upright');
    await files().getByText('The upright file shows the middle of the picture.').waitFor();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await files().getByRole('button', { name: 'Place the square frame' }).click();
    await page
      .getByRole('slider', { name: /^Frame, square/ })
      .or(page.locator('[aria-label^="Frame, square"]'))
      .first()
      .waitFor();
    await page.getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await desk.untilSheet(videoId, (sheet) => desk.onlyDrop(sheet).state === 'live');
    await files()
      .getByText(/180×180/)
      .first()
      .waitFor();
  });
});

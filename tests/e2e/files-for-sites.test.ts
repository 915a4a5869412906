import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { choose, expectReachable, itsBrowser, withOpenSections } from '../setup/browser';
import { itsPages } from '../setup/its-pages';
import { AAC, H264, made } from '../setup/made-files';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let page: Page;
let videoId: string;

/** Ten seconds that move, then three of black, with a tone that goes on. */
function blackTail(): string {
  const moving = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=10'];
  const black = ['-f', 'lavfi', '-i', 'color=black:s=320x180:r=25:d=3'];
  const tone = ['-f', 'lavfi', '-i', 'sine=f=440:r=48000:d=13'];
  const joined = ['-filter_complex', '[0][1]concat=n=2:v=1:a=0[v]', '-map', '[v]', '-map', '2:a'];
  return made('tail.mp4', ...moving, ...black, ...tone, ...joined, ...H264, ...AAC, '-movflags', '+faststart');
}

beforeAll(async () => {
  await desk.channelsOfTheYard();
  ({ videoId } = await desk.bringLocalFile(blackTail(), { fileName: 'tail.mp4' }));
  await desk.untilSheet(videoId, ({ measured }) => measured === 'ready');
  page = await (await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 900 } }))).newPage();
  // Its scripts run once it asks for what was measured.
  await Promise.all([page.waitForResponse(/\/measures$/), page.goto(`${home}/videos/${videoId}`)]);
});
const file = () => page.getByRole('region', { name: 'The file', exact: true });
const TAIL = '3.0 s of black at the end, while the sound goes on';

describe('what is found in a file', () => {
  it('stands with the file and beside the channels, and leads to its moment', async () => {
    await file().getByText(TAIL).first().waitFor();
    const rail = page.getByRole('region', { name: 'Where it goes' });
    await rail.getByRole('button', { name: TAIL }).waitFor();
    await file().getByRole('button', { name: 'Go to 0:10' }).click();
    await page.waitForFunction(() => document.querySelector('video')?.currentTime === 10);
    await expectReachable(file());
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
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).wavedThrough).toEqual([]);
  });
});

describe('files that go out', () => {
  const files = () => page.getByRole('region', { name: 'Files that go out' });

  it('leave off what is found at the end, after showing both pictures; undo brings it back', async () => {
    await file().getByRole('button', { name: 'Leave off the end' }).click();
    const shown = (name: string) => page.getByRole('img', { name });
    for (const name of ['the new last picture', 'left off']) {
      await expect.poll(() => shown(name).evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBe(320);
    }
    await page.getByRole('button', { name: 'End there' }).click();
    await file().getByText('Put right in the file that goes out.').waitFor();
    await files().getByText('Put right: ends at 10.00 s.').waitFor();
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).remedies).toEqual({ to: { num: 10, den: 1 } });
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).remedies).toEqual({});
    await file().getByRole('button', { name: 'Leave off the end' }).waitFor();
  });

  it('are framed upright by hand, over the player, and show what comes of it before anything is made', async () => {
    await choose(page.getByRole('combobox', { name: 'File settings' }), 'Upright');
    await files().getByText('The upright file shows the middle of the picture.').waitFor();
    await files().getByRole('button', { name: 'Place the upright frame' }).click();
    const frame = page.getByRole('slider', { name: 'Frame, upright (9:16)' });
    // Under the pointer, where it stands still by then.
    await frame.hover();
    const box = await frame.boundingBox();
    if (!box) throw new Error('no frame');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x - 100, y, { steps: 4 });
    await page.mouse.up();
    const framings = async () => (await desk.lookAtSheet(videoId)).framings.upright?.placements ?? [];
    await expect.poll(framings).toHaveLength(1);
    // The player is as wide as the picture: 100 of its pixels are so many ten-thousandths.
    const player = await page.locator('video').boundingBox();
    const [first] = await framings();
    expect(Math.abs((first?.x ?? 0) - (5000 - (100 / (player?.width ?? 1)) * 10_000))).toBeLessThan(20);
    expect(await frame.getAttribute('aria-valuenow')).toBe(String(Math.round((first?.x ?? 0) / 100)));

    await page.getByRole('slider', { name: 'Time ruler' }).press('ArrowLeft');
    await frame.press('Shift+ArrowRight');
    await expect.poll(framings).toHaveLength(2);
    // What is shown beside it is what lies under the frame.
    const alike = await page.evaluate(() => {
      const [video, result] = [document.querySelector('video'), document.querySelector('canvas[role=img]')];
      const over = document.querySelector('[aria-label^="Frame, upright"]');
      if (!video || !(result instanceof HTMLCanvasElement) || !over) return Number.POSITIVE_INFINITY;
      const [whole, part] = [video.getBoundingClientRect(), over.getBoundingClientRect()];
      const other = Object.assign(document.createElement('canvas'), { width: result.width, height: result.height });
      const scale = video.videoWidth / whole.width;
      const [left, top] = [(part.x - whole.x) * scale, (part.y - whole.y) * scale];
      other
        .getContext('2d')
        ?.drawImage(video, left, top, part.width * scale, part.height * scale, 0, 0, other.width, other.height);
      const pixels = [result, other].map(
        (each) => each.getContext('2d')?.getImageData(0, 0, each.width, each.height).data,
      );
      const [a, b] = [pixels[0] ?? [], pixels[1] ?? []];
      let sum = 0;
      for (let at = 0; at < a.length; at += 4) sum += Math.abs((a[at] ?? 0) - (b[at] ?? 0));
      return sum / (a.length / 4);
    });
    expect(alike).toBeLessThan(12);
    await page
      .getByRole('combobox', { name: /^How the frame comes to|^Size of the frame/ })
      .first()
      .waitFor();
    await expectReachable(page, ['light']);
    await page
      .getByRole('button', { name: /^Take away the place at/ })
      .first()
      .click();
    await expect.poll(framings).toHaveLength(1);
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(framings).toHaveLength(2);
    await page.getByRole('button', { name: 'Back to chapters' }).click();
    await files().getByText('The upright frame is placed at 2 moments.').waitFor();
  });

  it('are made by a set of one’s own, once for all that take it, and say how far they are', async () => {
    const series = await page.context().newPage();
    await Promise.all([series.waitForResponse(/\/api\/sites$/), series.goto(`${home}/series`)]);
    await series.getByRole('button', { name: 'Make one like it: Talk', exact: true }).click();
    // The page has a name field of its own.
    await series.getByRole('dialog').getByRole('textbox', { name: 'Name' }).fill('Yard talk');
    await series.getByRole('spinbutton', { name: 'Target, kbit/s' }).fill('900');
    await series.getByRole('spinbutton', { name: 'Ceiling, kbit/s' }).fill('500');
    await series.getByRole('alert').getByText('Set it to 900 kbit/s or more').waitFor();
    await series.getByRole('spinbutton', { name: 'Ceiling, kbit/s' }).fill('1400');
    await series.getByRole('combobox', { name: 'Picture', exact: true }).click();
    await series.getByRole('option', { name: /^VP9/ }).click();
    await series.getByRole('button', { name: 'Make this set' }).click();
    await series.getByText('MP4, VP9 · at most 720 lines · 900 kbit/s, at most 1.4 Mbit/s').waitFor();
    const sets = series.getByRole('region', { name: 'File settings' });
    await sets.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(() => sets.getByText('Yard talk').count()).toBe(0);
    await sets.getByRole('button', { name: BUTTONS.redo }).click();
    await sets.getByText('Yard talk').waitFor();
    await series.close();
    for (const name of ['Marrow Quay', '@marrowquay']) {
      await desk.tickChannel(videoId, (await desk.channelsOfTheYard()).get(name) ?? '', true);
    }
    await desk.editVideo(videoId, { privacy: 'private', forChildren: false });
    await choose(page.getByRole('combobox', { name: 'File settings' }), 'Yard talk');
    // Pipwire takes H.264 alone, so that there are two files.
    await expect.poll(() => files().getByRole('listitem').count()).toBe(2);
    await files().getByText('VP9 320×180').waitFor();
    await files().getByText('H.264 320×180').waitFor();
    await page.getByRole('button', { name: 'Send to two channels' }).click();
    await files()
      .getByText(/Making the file, \d+ %/)
      .first()
      .waitFor();
    await expect
      .poll(() =>
        files()
          .getByText(/● Made: /)
          .count(),
      )
      .toBe(2);
    await expectReachable(files(), ['light']);
    await desk.untilSheet(
      videoId,
      ({ channels }) => channels.filter(({ drop }) => drop?.state === 'live').length === 2,
    );
    await files()
      .getByRole('button', { name: /^Delete this file/ })
      .first()
      .click();
    await files().getByText('Made, and deleted since').first().waitFor();
  });

  it('go at the speed that is set, which says what is wrong with what was typed', async () => {
    await Promise.all([page.waitForResponse(/\/api\/line$/), page.goto(`${home}/channels`)]);
    const speed = page.getByRole('region', { name: 'Upload speed' });
    await speed.getByRole('button', { name: 'Set this limit' }).click();
    await speed.getByRole('alert').getByText('such as 8').waitFor();
    await speed.getByLabel('Mbit/s').fill('12,5');
    await speed.getByLabel('from', { exact: true }).fill('9:00');
    await speed.getByLabel('to', { exact: true }).fill('17:30');
    await speed.getByRole('button', { name: 'Set this limit' }).click();
    await speed.getByText(/at most 12\.5 Mbit\/s, from 09:00 to 17:30 \(/).waitFor();
    await speed.getByRole('button', { name: 'Take the limit away' }).click();
    await speed.getByText('Uploads take all of the line.').waitFor();
  });
});

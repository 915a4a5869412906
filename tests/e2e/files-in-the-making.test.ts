import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import { ENCODERS_AT_ONCE } from '@/worker/jobs/encode-turns';
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

/** A video whose file has to be encoded. */
const encoded = (fileName: string, seconds: number) =>
  desk.readVideo(makeClip({ name: fileName, seconds }), fileName, {
    privacy: 'private',
    file: { way: 'set', set: 'square' },
  });
const fileOf = async (videoId: string) => (await desk.lookAtSheet(videoId)).renditions[0];
/** The videos, of these, whose files a worker has in hand: at the gate none has come far enough to say so. */
async function inHand(videos: readonly string[]): Promise<string[]> {
  const jobs: string[] = await desk.transaction((trx) =>
    trx('jobs').where({ kind: 'encode', state: 'waiting' }).whereNotNull('leaseOwner').pluck('subject'),
  );
  const files = await Promise.all(videos.map(fileOf));
  return videos.filter((_, at) => jobs.includes(files[at]?.id ?? ''));
}

describe('a file that is being made', () => {
  it('is held and goes on, another is made first, and one is stopped', async () => {
    gate.shut();
    const videos: string[] = [];
    for (let n = 0; n < ENCODERS_AT_ONCE + 2; n += 1) videos.push(await encoded(`made-${n}.mp4`, 2 + n));
    // One after the other: sent at once, any of them may be asked for first.
    for (const [sent, id] of videos.entries()) {
      await desk.sendVideo(id);
      const isFull = sent >= ENCODERS_AT_ONCE;
      if (isFull) await expect.poll(async () => (await fileOf(id))?.state).toBe('waiting');
      else await expect.poll(() => inHand(videos)).toContain(id);
    }
    const [held = '', next = '', last = ''] = [videos[0], videos.at(-2), videos.at(-1)];
    await expect.poll(() => inHand(videos)).toEqual(videos.slice(0, ENCODERS_AT_ONCE));
    await page.goto(`${home}/videos/${last}`);
    await files().getByRole('button', { name: 'Make it first: file for Marrow Quay' }).click();
    await page.goto(`${home}/videos/${held}`);
    await files().getByRole('button', { name: 'Hold: file for Marrow Quay' }).click();
    await files()
      .getByText(/On hold/)
      .waitFor();
    // Its turn is free now, and goes to the last, which was put before the other.
    await expect.poll(() => inHand(videos)).toContain(last);
    expect(await inHand(videos)).not.toContain(next);
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
    await page.goto(`${home}/videos/${next}`);
    await files().getByRole('button', { name: 'Stop making it: file for Marrow Quay' }).click();
    await expect.poll(async () => (await fileOf(next))?.state).not.toBe('waiting');
    gate.open();
    for (const id of videos.filter((each) => each !== next)) {
      await desk.untilSheet(id, (sheet) => desk.onlyDrop(sheet).state === 'live');
    }
    expect(desk.onlyDrop(await desk.lookAtSheet(next)).state).toBe('snag');
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
    await page.locator('[aria-label^="Frame, square"]').waitFor();
    await page.getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await desk.untilSheet(videoId, (sheet) => desk.onlyDrop(sheet).state === 'live');
    await files()
      .getByText(/180×180/)
      .first()
      .waitFor();
  });
});

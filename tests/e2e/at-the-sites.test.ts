import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { STATE_WORDS } from '@/core/drop';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { itsBrowser, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';

const { home } = itsPages();
const browser = itsBrowser();
let page: Page;
let channels: Map<string, string>;

const rail = () => page.getByRole('region', { name: 'Where it goes', exact: true });
const part = (name: string) => page.getByRole('region', { name, exact: true });
const sure = () => page.getByRole('alertdialog');
const clip = makeClip({ name: 'at-the-sites.mp4', seconds: 6 });
const linkOf = async (videoId: string) => desk.onlyDrop(await desk.lookAtSheet(videoId)).link ?? '';
const openTo = async (link: string) => (await fetch(link)).status;

const video = (fileName: string, wished: Record<string, unknown>, channel?: string) =>
  desk.readVideo(clip, fileName, wished, channel);
const until = (videoId: string, state: string) =>
  desk.untilSheet(videoId, (sheet) => desk.onlyDrop(sheet).state === state);
async function live(fileName: string, channel?: string): Promise<string> {
  const videoId = await video(fileName, { privacy: 'everyone' }, channel);
  await desk.sendVideo(videoId);
  await until(videoId, 'live');
  return videoId;
}
const openSheet = (videoId: string) => page.goto(`${home}/videos/${videoId}`);
const openDrop = async (videoId: string) =>
  page.goto(`${home}/drops/${desk.onlyDrop(await desk.lookAtSheet(videoId)).id}`);

beforeAll(async () => {
  channels = await desk.channelsOfTheYard();
  page = await (await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 900 } }))).newPage();
});

describe('a video for people with a password', () => {
  it('is open to whoever has it, and to nobody before', async () => {
    const videoId = await video('with-a-password.mp4', {}, 'Marrow Quay Films');
    await openSheet(videoId);
    const choice = page.getByRole('radio', { name: /^People with a password/ });
    // While the page is just being opened, it may show the choice a moment later.
    await choice.click();
    await expect.poll(() => choice.isChecked()).toBe(true);
    await rail().getByText('▲').first().waitFor();
    await page.getByLabel('Password', { exact: true }).fill('oakum-and-tar');
    await page.getByText('all saved').waitFor();
    await rail().getByRole('button', { name: 'Send to Marrow Quay Films' }).click();
    await rail()
      .getByText(/^Live · .*password · checked$/)
      .waitFor();
    expect(await openTo(await linkOf(videoId))).toBe(403);
    const watch = await browser.newPage();
    await watch.goto(await linkOf(videoId));
    await watch.getByLabel('Password').fill('oakum');
    await watch.getByLabel('Password').press('Enter');
    expect(await watch.locator('video').count()).toBe(0);
    await watch.getByLabel('Password').fill('oakum-and-tar');
    await watch.getByLabel('Password').press('Enter');
    await watch.locator('video').waitFor();
    await watch.context().close();
  });
});

describe('a file that goes up before its words', () => {
  it('says that it lies there closed, and is what is sent then', async () => {
    const channelId = channels.get('Marrow Quay Films') ?? '';
    await desk.editDefaults({ layer: 'channel', owner: channelId }, { uploadEarly: true });
    const videoId = await video('goes-up-early.mp4', { privacy: 'everyone' }, 'Marrow Quay Films');
    await openSheet(videoId);
    await rail().getByText('The file is on Fieldgate already, closed.').waitFor();
    const ofIt = async () =>
      (await desk.videosAt('fieldgate')).filter(({ fileName }) => fileName === 'goes-up-early.mp4');
    const [there] = await ofIt();
    expect(there).toMatchObject({ audience: 'me' });
    await page.getByLabel('Title', { exact: true }).fill('Up before its words');
    await page.getByText('all saved').waitFor();
    await rail().getByRole('button', { name: 'Send to Marrow Quay Films' }).click();
    await rail().getByText('Live · checked').waitFor();
    const after = await ofIt();
    expect(after).toHaveLength(1);
    expect(after[0]).toMatchObject({ id: there?.id, headline: 'Up before its words' });
    await desk.editDefaults({ layer: 'channel', owner: channelId }, { uploadEarly: null });
  });
});

describe('a live video', () => {
  it('gets a better file after one question; the link stays, and it is open all the time', async () => {
    const videoId = await live('a-better-file.mp4', 'Marrow Quay Films');
    const link = await linkOf(videoId);
    await openSheet(videoId);
    await page
      .getByLabel('New file')
      .setInputFiles(makeClip({ name: 'a-better-file.mp4', seconds: 6, bitRate: '500k' }));
    await rail().getByRole('button', { name: 'Send the new file' }).click();
    await sure().getByText('stays as it is until the new file is there and checked').waitFor();
    await sure().getByText('Then Fieldgate shows the new file at the same link.').waitFor();
    expect(await openTo(link)).toBe(200);
    await sure().getByRole('button', { name: 'Send the new file' }).click();
    await desk.untilSheet(videoId, (sheet) => {
      const { state, otherFile } = desk.onlyDrop(sheet);
      return state === 'live' && otherFile === false;
    });
    expect(await linkOf(videoId)).toBe(link);
    expect(await openTo(link)).toBe(200);
  });

  it('that somebody has changed there is left as it is, and no longer said to differ', async () => {
    const videoId = await live('changed-there.mp4');
    await desk.changedAt('lanternfold', 'changed-there.mp4', { title: 'By hand' });
    await openDrop(videoId);
    await page.getByRole('button', { name: BUTTONS.readAgain }).click();
    const different = part('Different on Lanternfold');
    await different.getByRole('button', { name: BUTTONS.leaveIt }).click();
    await expect.poll(() => different.getByRole('button', { name: BUTTONS.leaveIt }).count()).toBe(0);
    await openSheet(videoId);
    await rail().getByText('Live · checked').waitFor();
    expect(await rail().getByText('Changed here, not sent yet').count()).toBe(0);
  });
});

describe('a rights match', () => {
  it('is got round by leaving that part out: one question, a new file, and the old video is gone', async () => {
    const videoId = await video('a-match.mp4', { privacy: 'private' });
    await desk.setFaults({
      ...{ kind: 'rights match', match: 'a-match', wants: 'close', from: 1, to: 2, times: 1 },
      ...{ reason: 'Harbour Lane Music', value: 'Slow Tide' },
    });
    await desk.sendVideo(videoId);
    await until(videoId, 'snag');
    const first = await linkOf(videoId);
    await openDrop(videoId);
    const matches = part('Rights matches');
    await matches.getByRole('radio', { name: /^Leave that part out/ }).check();
    await matches.getByRole('button', { name: 'Send it without that' }).click();
    await sure().getByText('The one that is there is removed, and its link ends.').waitFor();
    await sure().getByRole('button', { name: 'Make the file and send it' }).click();
    await until(videoId, 'live');
    const link = await linkOf(videoId);
    expect(link).not.toBe(first);
    const [there] = (await desk.videosAt('lanternfold')).filter(({ fileName }) => String(fileName).includes('a-match'));
    expect(Number(there?.seconds)).toBeLessThan(5.5);
    await desk.setFaults();
  });
});

describe('a video that is to open in full quality only', () => {
  it('waits for that, says so, and opens then', async () => {
    const videoId = await video('in-full-quality.mp4', { privacy: 'everyone', fullFirst: true });
    await desk.setFaults({ kind: 'slow processing', match: 'in-full-quality', seconds: 6, times: 1 });
    await desk.sendVideo(videoId);
    const versions = async () => desk.onlyDrop(await desk.lookAtSheet(videoId)).versions;
    await expect.poll(versions).toHaveLength(1);
    await openSheet(videoId);
    await rail().getByText(STATE_WORDS.settling).waitFor();
    expect(await openTo(await linkOf(videoId))).toBe(404);
    await rail().getByText('Live · checked').waitFor();
    expect(await versions()).toHaveLength(2);
    await desk.setFaults();
  });
});

describe('an account', () => {
  it('that is disconnected can be removed, with its channels; its videos stay here', async () => {
    const videoId = await live('of-an-account.mp4', 'Marrow Quay Films');
    await page.goto(`${home}/channels`);
    const site = part('Fieldgate');
    await site.getByRole('button', { name: BUTTONS.disconnect }).click();
    await sure().getByRole('button', { name: BUTTONS.disconnect }).click();
    await site.getByText('○ disconnected').waitFor();
    await site.getByRole('button', { name: 'Remove', exact: true }).click();
    await site.getByText('No account is connected').waitFor();
    await page.goto(`${home}/`);
    await page.getByRole('link', { name: /Of an account/ }).waitFor();
    expect((await desk.lookAtSheet(videoId)).title).toBe('Of an account');
  });
});

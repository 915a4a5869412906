import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { BrowserContext, Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { expectAccessible, itsBrowser, untilRead, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let context: BrowserContext;
let page: Page;
let channels: Map<string, string>;

const clip = makeClip({ name: 'trust.mp4', seconds: 3 });
const longer = makeClip({ name: 'trust-longer.mp4', seconds: 4 });
const region = (name: string, on = page) => on.getByRole('region', { name });
const rail = (on = page) => region('Where it goes', on);
const title = (on = page) => on.getByLabel('Title', { exact: true });

beforeAll(async () => {
  channels = await desk.channelsOfTheYard();
});
/** A browser of its own with one page, so that nothing of one test is kept for the next. */
async function freshPage(): Promise<Page> {
  await context?.close();
  context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  page = await context.newPage();
  return page;
}

/** A video that has been read and is ticked for some channels; its Sheet is open. */
async function openVideo(fileName: string, ...names: string[]): Promise<string> {
  const { videoId } = await desk.bringLocalFile(clip, { fileName, anyway: true });
  await desk.editVideo(videoId, { forChildren: false });
  for (const name of names) await desk.tickChannel(videoId, channels.get(name) ?? '', true);
  await desk.untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await freshPage();
  await page.goto(`${home}/videos/${videoId}`);
  await title().waitFor();
  return videoId;
}

const allSaved = (on = page) => on.getByText('all saved').waitFor();

describe('who may see it, through the pages', () => {
  // From each to each other is held by what every site has to meet (conformance), and by desk and worker (trust/ends).
  it('follows the record wider and narrower again, and asks before everyone can see it', async () => {
    const videoId = await openVideo('pages.mp4', 'Marrow Quay');
    const steps: [choice: RegExp, says: string, status: number][] = [
      [/^Only me/, 'Live · private · checked', 404],
      [/^Everyone/, 'Live · checked', 200],
      [/^Only me/, 'Live · private · checked', 404],
    ];
    for (const [index, [choice, says, status]] of steps.entries()) {
      await page.getByRole('radio', { name: choice }).check();
      await allSaved();
      if (index === 1) await rail().getByText('Changed here, not sent yet: privacy').first().waitFor();
      const press = index === 0 ? 'Send to Marrow Quay' : 'Send the changes';
      // Fewer people see it at once, without a press.
      if (index < 2) await rail().getByRole('button', { name: press, exact: true }).click();
      if (says === 'Live · checked') {
        await page.getByRole('alertdialog').getByRole('button', { name: BUTTONS.sendAndOpen }).click();
      }
      await rail().getByText(says, { exact: true }).waitFor();
      const { link = '' } = desk.onlyDrop(await desk.lookAtSheet(videoId));
      expect([says, link, (await fetch(link)).status]).toEqual([says, expect.stringMatching(/^http/), status]);
    }
    // The way back, on the Sheet and on the page of the upload.
    const { id, link = '' } = desk.onlyDrop(await desk.lookAtSheet(videoId));
    const wayBack = async (name = 'Open it again to everyone') => {
      await page.getByRole('button', { name }).click();
      const sure = page.getByRole('alertdialog', { name: 'Open it to everyone on Marrow Quay?' });
      await sure.getByRole('button', { name: BUTTONS.openIt }).click();
    };
    const close = async () => {
      await page.goto(`${home}/drops/${id}`);
      await page.getByRole('button', { name: 'Close it: private' }).click();
      await page.getByRole('alertdialog').getByRole('button', { name: 'Close it' }).click();
    };
    await wayBack();
    await rail().getByText('Different here: privacy (Everyone)').waitFor();
    await rail().getByText('Live · checked', { exact: true }).waitFor();
    await close();
    await wayBack();
    await page.getByText('Live · checked', { exact: true }).waitFor();
    await close();
    await page.getByText('Live · private · checked', { exact: true }).waitFor();
    await page.goto(home);
    await wayBack('Open again on Marrow Quay');
    await expect.poll(async () => (await fetch(link)).status).toBe(200);
  });

  it('says what is given away before a match is agreed to, and offers nothing where the owner forbids it', async () => {
    await desk.setFaults(
      { kind: 'rights match', match: 'income', wants: 'share', reason: 'Harbour Lane Music' },
      { kind: 'rights match', match: 'forbidden', wants: 'close', reason: 'Harbour Lane Music' },
    );
    const forbidden = await openVideo('forbidden.mp4', 'Marrow Quay');
    await rail().getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await rail().getByText('Harbour Lane Music does not permit it').first().waitFor();
    const sheet = await desk.untilSheet(forbidden, ({ channels: all }) =>
      all.some(({ drop }) => drop?.state === 'snag'),
    );
    // What may be done with it is there to be pressed, and to agree is not among it.
    await rail().getByRole('button', { name: BUTTONS.tryAgain }).waitFor();
    expect(sheet.channels.find(({ ticked }) => ticked)?.drop?.actions).not.toContain('accept');
    const offered = await rail().getByRole('button').allInnerTexts();
    expect(offered.filter((each) => /Let them|Share|Agree/.test(each))).toEqual([]);
    await openVideo('income.mp4', 'Marrow Quay');
    await rail().getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await rail().getByRole('button', { name: 'Share what it earns' }).click();
    const sure = page.getByRole('alertdialog', { name: 'Share what it earns with Harbour Lane Music?' });
    await sure.getByText('gets a share of what this video earns').waitFor();
    await sure.getByRole('button', { name: 'Agree', exact: true }).click();
    await rail().getByText('Live · private · checked').waitFor();
    await desk.setFaults();
  });

  it('says on Board and Sheet that a site has the file from before, and undo brings that back', async () => {
    const videoId = await openVideo('better-file.mp4', 'Marrow Quay');
    await rail().getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await rail().getByText('Live · private · checked').waitFor();
    await desk.bringLocalFile(longer, { videoId, fileName: 'better-file-2.mp4', anyway: true });
    await rail().getByText('shows the earlier file').waitFor();
    await rail().getByText('has the file from before. Send the new one').waitFor();
    const board = await context.newPage();
    await board.goto(home);
    const row = board.getByRole('row').filter({ hasText: 'Better file' });
    await row.getByText('shows the earlier file').waitFor();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await rail().getByText('Live · private · checked').waitFor();
    await row.getByText('Live · private · checked').waitFor();
  });
});

describe('undo', () => {
  it('of a tick that was sent since says that it stays', async () => {
    await openVideo('undo-tick.mp4');
    await rail()
      .getByRole('region', { name: /^Marrow Quay on/ })
      .getByRole('checkbox')
      .click();
    await rail().getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await rail().getByText('Live · private · checked').waitFor();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await page.getByText('The tick for Marrow Quay stays: the video was sent there').first().waitFor();
    await rail().getByText('Live · private · checked').waitFor();
  });
});

describe('what is for viewers', () => {
  it('is nothing until somebody says so, and the rail says that nobody has', async () => {
    const edl = path.join(mkdtempSync(path.join(os.tmpdir(), 'kettle-trust-')), 'one.edl');
    writeFileSync(
      edl,
      'TITLE: x\n001 AX V C 00:00:00:00 00:00:03:00 01:00:00:00 01:00:03:00\n* LOC: 01:00:00:00 GREEN client HATES this\n',
    );
    await openVideo('notes.mp4', 'Marrow Quay Films');
    await page.getByLabel('Marker file').setInputFiles(edl);
    await page.getByRole('dialog').getByRole('button', { name: BUTTONS.addMarkers }).click();
    await rail().getByText('none of the 1 markers is for viewers yet').waitFor();
    await region('Chapters').getByRole('button', { expanded: false }).first().click();
    expect(
      await page.locator('#chapters').getByRole('checkbox', { name: /green/ }).getAttribute('aria-checked'),
    ).not.toBe('true');
    await page.getByRole('button', { name: 'No chapters in this video' }).click();
    await expect.poll(() => rail().getByText('is for viewers yet').count()).toBe(0);
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await rail().getByText('is for viewers yet').waitFor();
  });

  it('never has a blank that was forgotten: it stops, leads there, and may be meant', async () => {
    await openVideo('blanks.mp4', 'Marrow Quay');
    await page.getByLabel('Summary').fill('Gear: {{leftover}}');
    await rail().getByText('▲ 1 to settle').waitFor();
    await rail().getByRole('button', { name: '“{{leftover}}” looks like a blank' }).click();
    await expect.poll(() => page.evaluate(() => document.activeElement?.id)).toBe('summary');
    await rail().getByRole('button', { name: 'This is intended' }).click();
    await rail().getByText('● ready').waitFor();
    await expectAccessible(rail());
  });

  it('goes nowhere where no series knows the file, and the one used last is an offer', async () => {
    const series = await desk.newSeries({ name: 'Bilge Talk', pattern: 'bilge_{title}' });
    await desk.editDefaults({ layer: 'series', owner: series }, { channels: [channels.get('Tide Notes')] });
    await desk.bringLocalFile(clip, { fileName: 'bilge_one.mp4', anyway: true });
    await openVideo('quite-another.mp4');
    expect(await rail().getByRole('checkbox', { checked: true }).count()).toBe(0);
    await page.getByRole('button', { name: 'Put it in Bilge Talk, the one used last' }).click();
    await rail()
      .getByText(/● ready|to settle/)
      .waitFor();
  });
});

describe('what is typed', () => {
  it('is saved while it is typed, and when it rests', async () => {
    const videoId = await openVideo('typing.mp4', 'Marrow Quay');
    const saves: number[] = [];
    page.on('request', (request) => {
      if (request.method() === 'PATCH') saves.push(Date.now());
    });
    await page.getByLabel('Summary').click();
    const start = Date.now();
    // Never a pause of half a second.
    while (Date.now() - start < 6000) await page.keyboard.type('x', { delay: 60 });
    expect(saves.length).toBeGreaterThanOrEqual(2);
    expect((saves[0] ?? 0) - start).toBeLessThan(3500);
    await allSaved();
    const typed = await page.getByLabel('Summary').inputValue();
    expect((await desk.lookAtSheet(videoId)).summary).toBe(typed);
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(() => page.getByLabel('Summary').inputValue()).toBe('');
  });

  it('is saved when the line is back; until then leaving asks, and sending waits', async () => {
    const videoId = await openVideo('offline.mp4', 'Marrow Quay');
    await context.setOffline(true);
    await title().fill('Typed without a line');
    await page.getByText('not saved yet; it is tried again').waitFor();
    await rail().getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await rail().getByText('It is sent as soon as everything on this page is saved').waitFor();
    let asked = 0;
    page.once('dialog', async (dialog) => {
      asked += dialog.type() === 'beforeunload' ? 1 : 0;
      await dialog.dismiss();
    });
    await page.reload({ timeout: 3000 }).catch(() => undefined);
    expect(asked).toBe(1);
    expect(await title().inputValue()).toBe('Typed without a line');
    await context.setOffline(false);
    await allSaved();
    const sheet = await desk.untilSheet(videoId, ({ channels: all }) => all.some(({ drop }) => drop?.state === 'live'));
    expect(sheet.title).toBe('Typed without a line');
    const { words } = sheet.channels.find(({ drop }) => drop) ?? {};
    expect(words?.title).toBe('Typed without a line');
    expect(desk.onlyDrop(sheet).state).toBe('live');
  });

  it('is kept in the browser when the tab is closed, and offered at return', async () => {
    const videoId = await openVideo('closed-tab.mp4', 'Marrow Quay');
    // Nothing is saved until the offer is there, not even by a page that goes slowly.
    const saves = /\/api\/videos\//;
    await context.route(saves, (route) => (route.request().method() === 'PATCH' ? route.abort() : route.continue()));
    await page.getByLabel('Summary').fill('Typed, and the tab was closed');
    await page.getByText('not saved yet; it is tried again').waitFor();
    await page.close({ runBeforeUnload: false });
    page = await context.newPage();
    await page.goto(`${home}/videos/${videoId}`);
    await page.getByText('This was typed here and not saved:').waitFor();
    await context.unroute(saves);
    expect(await page.getByLabel('Summary').inputValue()).toBe('');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Use it' }).click();
    await allSaved();
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).summary).toBe('Typed, and the tab was closed');
    await page.reload();
    expect(await page.getByText('This was typed here and not saved:').count()).toBe(0);
  });

  it('is read back once: its own change is no news to the window that has made it, another’s is', async () => {
    const videoId = await openVideo('read-back-once.mp4', 'Marrow Quay');
    await allSaved();
    const reads: string[] = [];
    page.on('request', (request) => {
      const { pathname } = new URL(request.url());
      if (request.method() === 'GET' && pathname === `/api/videos/${videoId}`) reads.push(pathname);
    });
    await page.evaluate((about) => {
      const told: number[][] = [];
      Object.assign(window, { told });
      new BroadcastChannel('kettle changes').onmessage = ({ data }) => {
        for (const [each, ids] of data.about ?? []) if (each === about) told.push(ids);
      };
    }, `video:${videoId}`);
    const heard = () => page.evaluate(() => (window as unknown as { told: number[][] }).told);
    // What was heard while the page was opened is acted on by then.
    await page.waitForTimeout(800);
    reads.length = 0;
    const saved = page.waitForResponse((answer) => answer.request().method() === 'PATCH');
    await page.getByLabel('Summary').fill('Typed here');
    const own = ((await saved).headers()['x-kettle-changes'] ?? '').split(',').map(Number);
    await allSaved();
    await expect.poll(async () => (await heard()).flat()).toEqual(expect.arrayContaining(own));
    // What a page hears it acts on within 0.4 s.
    await page.waitForTimeout(800);
    const others = async () => (await heard()).filter((ids) => !ids.every((id) => own.includes(id))).length;
    expect(reads.length).toBeLessThanOrEqual(1 + (await others()));
    await desk.editVideo(videoId, { summary: 'Changed by somebody else' });
    await expect.poll(() => page.getByLabel('Summary').inputValue()).toBe('Changed by somebody else');
    expect(reads.length).toBeLessThanOrEqual(1 + (await others()));
    expect(reads.length).toBeGreaterThan(1);
  });

  it('in two windows merges in different fields, and asks in the same one', async () => {
    const videoId = await openVideo('two-windows.mp4', 'Marrow Quay');
    // A window of another browser, which does not hear what the first one does: those of one browser tell each other.
    const second = await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
    const other = await second.newPage();
    await other.route('**/api/changes*', (route) => route.abort());
    await other.goto(`${home}/videos/${videoId}`);
    await title(other).waitFor();
    await page.getByLabel('Summary').fill('From the first');
    await allSaved();
    await other.getByLabel('Episode').fill('7');
    await allSaved(other);
    expect(await desk.lookAtSheet(videoId)).toMatchObject({ summary: 'From the first', episode: '7' });
    await other.route('**/api/videos/*', (route) =>
      route.request().method() === 'GET' ? route.abort() : route.continue(),
    );
    await title().fill('Title of the first');
    await allSaved();
    await title(other).fill('Title of the second');
    const dialog = other.getByRole('dialog', { name: 'The title was changed in another window' });
    await dialog.getByText('Title of the first').waitFor();
    await dialog.getByText('Title of the second').waitFor();
    await expectAccessible(dialog);
    expect((await desk.lookAtSheet(videoId)).title).toBe('Title of the first');
    await dialog.getByRole('button', { name: 'Keep yours' }).click();
    await expect.poll(async () => (await desk.lookAtSheet(videoId)).title).toBe('Title of the second');
    await expect.poll(() => title().inputValue()).toBe('Title of the second');
    await title().fill('Once more, the first');
    await allSaved();
    await title(other).fill('Once more, the second');
    await dialog.getByRole('button', { name: 'Keep the other one' }).click();
    await other.unroute('**/api/videos/*');
    await other.reload();
    await expect.poll(() => title(other).inputValue()).toBe('Once more, the first');
    await second.close();
  });
});

describe('files', () => {
  it('of a folder all arrive though the line breaks, each with its row; what is no video is named', async () => {
    await freshPage();
    await page.goto(home);
    const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-folder-'));
    writeFileSync(path.join(folder, 'notes.txt'), 'no video');
    const names = Array.from({ length: 7 }, (_, index) => `folder ${index + 1}`);
    const several = names.map((name, index) =>
      makeClip({ name: `${name.replace(' ', '-')}.mp4`, seconds: 3 + index, bitRate: '1500k' }),
    );
    const network = await context.newCDPSession(page);
    const line = (offline: boolean) =>
      network.send('Network.emulateNetworkConditions', {
        offline,
        latency: 0,
        downloadThroughput: -1,
        uploadThroughput: 600_000,
      });
    // What messages are shown with is loaded once the page rests, or when the first is said.
    const noVideos = ['one.txt', 'two.txt'].map((name) => path.join(folder, name));
    for (const each of noVideos) writeFileSync(each, 'no video');
    await page.getByLabel('Finished video files').setInputFiles(noVideos);
    await page.getByText('Left out, since no video: “one.txt” and “two.txt”').first().waitFor();
    await line(true);
    await page.getByLabel('Finished video files').setInputFiles([...several, path.join(folder, 'notes.txt')]);
    await page.getByText('Left out, since no video: “notes.txt”').first().waitFor();
    await page.getByText('7 more wait for Kettle Drop to answer').waitFor();
    await line(false);
    for (const name of names) {
      const found = page.getByRole('link', { name: new RegExp(name, 'i') });
      await found.waitFor();
    }
    await page.getByText('keep this page open until the files have arrived').waitFor();
    await page.getByText('Waits for its turn').first().waitFor();
    await line(true);
    await page.getByText('Waits for Kettle Drop to answer; it goes on by itself').first().waitFor();
    await line(false);
    for (const name of names) {
      const row = page.getByRole('row').filter({ hasText: new RegExp(name, 'i') });
      await row.getByText(/\d:\d\d · 320×180/).waitFor();
    }
    await network.detach();
  });

  it('that differ where nobody looked are not mixed: what has come has to be the start of this one', async () => {
    const video = readFileSync(makeClip({ name: 'mixed.mp4', seconds: 3 }));
    // A box of free space (ISO/IEC 14496-12, 8.1.2) makes it larger than what is sampled whole; one byte between two
    // samples differs.
    const free = Buffer.alloc(12 * 1024 * 1024);
    free.writeUInt32BE(free.length);
    free.write('free', 4);
    // Another file at each try: one that broke off before would go on.
    free.write(String(Math.random()), 64);
    const first = Buffer.concat([video, free]);
    const second = Buffer.from(first);
    second[100_000] = (second[100_000] ?? 0) ^ 0xff;
    const [one, two] = ['one', 'two'].map((name) => {
      const folder = mkdtempSync(path.join(os.tmpdir(), `kettle-${name}-`));
      return path.join(folder, 'mixed.mp4');
    }) as [string, string];
    writeFileSync(one, first);
    writeFileSync(two, second);
    await freshPage();
    const network = await context.newCDPSession(page);
    await network.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: 1_500_000,
    });
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(one);
    await page.getByText(/Arriving [2-9]\d %/).waitFor();
    page.once('dialog', (dialog) => dialog.accept());
    await page.reload();
    await page.getByText('has not arrived whole').waitFor();
    const broken = page.url();
    await network.detach();
    await page.getByLabel('The same file again').setInputFiles(two);
    await page.getByText('“mixed.mp4” is not the file that broke off').first().waitFor();
    await page.waitForURL((url) => url.href !== broken);
    await untilRead(page);
    await page.goto(broken);
    await page.getByLabel('The same file again').setInputFiles(one);
    await untilRead(page);
  });

  it('that are here already are named, and the first video is offered', async () => {
    await freshPage();
    await page.goto(home);
    const own = makeClip({ name: 'only-once.mp4', seconds: 2, size: '160x90' });
    await page.getByLabel('Finished video files').setInputFiles(own);
    await untilRead(page);
    const first = page.url();
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(own);
    const dialog = page.getByRole('alertdialog', { name: '“only-once.mp4” is here already' });
    await dialog.getByText('It is the file of “Only once”').waitFor();
    await dialog.getByRole('button', { name: 'Open the first one' }).click();
    await page.waitForURL(first);
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(own);
    await dialog.getByRole('button', { name: 'Make a second video' }).click();
    await untilRead(page);
    expect(page.url()).not.toBe(first);
    await page.getByText('The same file is in “Only once”, too.').waitFor();
  });
});

import { mkdtempSync, statSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import type { BrowserContext, Page } from 'playwright-core';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { STATE_WORDS, STOP_WORDS } from '@/core/drop';
import { BUTTONS } from '@/ui/button-words';
import { choose, expectAccessible, itsBrowser, textOf, untilRead, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { startedKettle } from '../setup/command';
import { addressOf, askedOf, setFaults } from '../setup/desk';
import { itsPages } from '../setup/its-pages';
import { stepsInOrder } from '../setup/steps';
import { keptFrom } from '../setup/watched';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let context: BrowserContext;
let page: Page;
let kept: string[];

const NAME = 'marrow_quay-plank-by-plank_ep07_FINAL-v3.mp4';
const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-e2e-'));
const clip = makeClip({ name: NAME, seconds: 48, size: '640x360', bitRate: '1500k' });
const edl = path.join(folder, 'ep07.edl');
writeFileSync(
  edl,
  `TITLE: ep07
FCM: NON-DROP FRAME

001  AX       V     C        00:00:00:00 00:00:48:00 01:00:00:00 01:00:48:00
* LOC: 01:00:00:00 GREEN   Why a scarf joint
* LOC: 01:00:07:05 RED     fix the colour here
* LOC: 01:00:15:12 GREEN   First cut
* LOC: 01:00:31:24 GREEN   Bolts in
`,
);

const region = (name: string) => page.getByRole('region', { name });
/** Waits for a notice; it stands twice on the page, once for those who hear it. */
const notice = (text: string | RegExp) => page.getByText(text).first().waitFor();
const rail = () => region('Where it goes');

stepsInOrder();

beforeAll(async () => {
  const permissions = ['clipboard-read', 'clipboard-write'];
  context = await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 800 }, permissions }));
  page = await context.newPage();
  kept = keptFrom(page);
  // Here the site really encodes what it could copy.
  await setFaults({ kind: 'encode', match: 'marrow_quay' });
});

describe('every answer', () => {
  it('says what may be done with it: no page runs scripts that are not its own, none stands in a frame', async () => {
    const at = async (path: string) => (await fetch(`${home}${path}`)).headers;
    const [one, two] = [await at('/'), await at('/channels')];
    const nonce = (headers: Headers) => /'nonce-([^']+)'/.exec(headers.get('content-security-policy') ?? '')?.[1];
    expect(nonce(one)).toMatch(/^[A-Za-z0-9+/]{22}==$/);
    expect(nonce(one)).not.toBe(nonce(two));
    for (const path of ['/', '/channels', '/api/board', '/api/health', '/nowhere', '/api/videos/nowhere']) {
      const headers = await at(path);
      expect(headers.get('x-content-type-options'), path).toBe('nosniff');
      expect(headers.get('referrer-policy'), path).toBe('same-origin');
      expect(headers.get('permissions-policy'), path).toContain('camera=()');
      expect(headers.get('content-security-policy'), path).toContain("frame-ancestors 'none'");
    }
    expect((await at('/api/board')).get('content-security-policy')).toContain('sandbox');
  });
});

describe('a cut goes from the desk to live', () => {
  it('starts with an empty Board that says what to do', async () => {
    await page.goto(home);
    await page.getByText('Nothing is on the Board yet').waitFor();
    await expectAccessible(page);
  });

  it('connects an account by the site’s own sign-in and consent', async () => {
    await page.getByRole('link', { name: 'Channels' }).click();
    await region('Lanternfold').getByText('No account is connected').waitFor();
    await page.getByRole('button', { name: 'Connect Lanternfold' }).click();
    await page.getByRole('heading', { name: 'Who are you here?' }).waitFor();
    await expectAccessible(page);
    await page.getByRole('button', { name: /Wil Tarrant/ }).click();
    await page.getByRole('heading', { name: 'Kettle Drop asks for your permission' }).waitFor();
    await page.getByText('send videos to your channels').waitFor();
    await page.getByRole('checkbox', { name: /Quay School/ }).uncheck();
    await page.getByRole('button', { name: 'Permit', exact: true }).click();
    await notice('Wil Tarrant is connected.');
    await page.getByText('● connected').waitFor();
    await page.getByRole('link', { name: 'Tide Notes' }).waitFor();
    expect(await page.getByRole('link', { name: 'Quay School' }).count()).toBe(0);
    await expectAccessible(page);
  });

  it('says so where the permission is refused, and keeps what was there', async () => {
    await page.getByRole('button', { name: 'Connect another account' }).click();
    await page.getByRole('button', { name: 'Do not permit' }).click();
    await notice('Lanternfold was not connected');
    await page.getByText('● connected').waitFor();
  });

  it('brings a file in, with a title from its name, over a restart of the server and a reload of the page', async () => {
    const offsets: number[] = [];
    page.on('request', (request) => {
      if (request.method() === 'PATCH' && request.url().includes('/api/arrivals/')) {
        offsets.push(Number(request.headers()['upload-offset']));
      }
    });
    const network = await context.newCDPSession(page);
    await network.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: 700_000,
    });
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(clip);
    await page.getByRole('heading', { level: 1, name: 'Marrow Quay plank by plank ep07' }).waitFor();
    await page.getByText(/Arriving [1-9]\d? % · .*bit\/s · .* left/).waitFor();

    await machine.end('web', 'SIGKILL');
    await page.getByText('Waits for Kettle Drop to answer').waitFor();
    await machine.start('web');
    await page.getByText(/Arriving ([3-9]\d) %/).waitFor();
    expect(offsets.at(-1)).toBeGreaterThan(0);

    page.once('dialog', (dialog) => dialog.accept());
    await page.reload();
    await page.getByText('has not arrived whole').waitFor();
    await page.getByLabel('The same file again').setInputFiles(edl);
    await notice('is another file than the one that broke off');
    await page.getByLabel('The same file again').setInputFiles(clip);
    await untilRead(page);
    const { size } = statSync(clip);
    expect(offsets.at(-1)).toBeGreaterThan(size * 0.25);
    await network.detach();
  });

  it('shows the facts of the cut, and plays it', async () => {
    const facts = region('The file');
    await facts.getByText('H.264 · 640×360').waitFor();
    await facts.getByText('25 fps', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Play' }).click();
    await page.waitForFunction(() => (document.querySelector('video')?.currentTime ?? 0) > 0.5);
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByRole('slider', { name: 'Time ruler' }).click({ position: { x: 300, y: 30 } });
    await page.waitForFunction(() => (document.querySelector('video')?.currentTime ?? 0) > 10);
  });

  it('takes markers, and only the chosen colour reaches viewers', async () => {
    const panel = page.locator('#chapters');
    await page.getByLabel('Marker file').setInputFiles(edl);
    const dialog = page.getByRole('dialog', { name: '4 markers in ep07.edl' });
    await dialog.getByText('Read as CMX 3600 EDL').waitFor();
    await dialog.getByRole('button', { name: BUTTONS.addMarkers }).click();
    await panel.getByText('green (3)').waitFor();
    expect(await panel.getByRole('listitem').count()).toBe(0);
    await panel.getByRole('checkbox', { name: /green/ }).click();
    await panel.getByText('First cut').waitFor();
    expect(await panel.getByRole('listitem').allInnerTexts()).toEqual([
      expect.stringMatching(/0:00\s+Why a scarf joint/),
      expect.stringMatching(/0:15\s+First cut/),
      expect.stringMatching(/0:31\s+Bolts in/),
    ]);
    await panel.getByText('1 note stays private').waitFor();
  });

  it('says which line of a marker file cannot be read, and keeps the markers', async () => {
    const broken = path.join(folder, 'broken.edl');
    writeFileSync(
      broken,
      'TITLE: x\n001 AX V C 00:00:00:00 00:00:10:00 01:00:00:00 01:00:10:00\n* LOC: 01:00:01:99 RED x\n',
    );
    await page.getByLabel('Marker file').setInputFiles(broken);
    await notice(/Line 3: .*frame 99/);
    await page.locator('#chapters').getByText('First cut').waitFor();
    await page.getByRole('button', { name: BUTTONS.close }).last().click();
  });

  it('puts a marker down with M while the video plays on, and changes markers in the table', async () => {
    const table = region('Markers');
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('l');
    await page.waitForFunction(() => document.querySelector('video')?.paused === false);
    await page.keyboard.press('m');
    expect(await page.evaluate(() => document.querySelector('video')?.paused)).toBe(false);
    const names = table.getByRole('textbox', { name: /^Name of the marker/ });
    await names.nth(4).waitFor();
    await page.keyboard.press('k');
    const tapped = () => names.evaluateAll((all) => all.findIndex((each) => (each as HTMLInputElement).value === ''));
    await names.nth(await tapped()).fill('Renamed');
    await table.getByLabel('Find in names and notes').fill('renam');
    await table.getByText('1 of 5').waitFor();
    await table.getByLabel('Find in names and notes').fill('');
    await page.locator('#chapters').getByText('Renamed').waitFor();
    await table
      .getByRole('checkbox', { name: /Choose the marker/ })
      .last()
      .check();
    await choose(table.getByLabel('Colour of those chosen'), 'red');
    await page.locator('#chapters').getByText('red (2)').waitFor();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await page.locator('#chapters').getByText('green (3)').waitFor();
    await expectAccessible(page.locator('#chapters'));
  });

  it('steps from marker to marker and frame by frame with the keys, and lists them on "?"', async () => {
    const clock = page.getByTestId('timecode').locator('..');
    await page.locator('#chapters').getByText('First cut').click();
    await page.keyboard.press('PageUp');
    await expect.poll(() => clock.innerText()).toContain('01:00:07:05');
    await page.keyboard.press('PageDown');
    await expect.poll(() => clock.innerText()).toMatch(/01:00:15:12\s+15.480 s\s+frame 387/);
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => clock.innerText()).toContain('frame 397');
    await page.keyboard.press('ArrowLeft');
    await expect.poll(() => clock.innerText()).toContain('frame 396');
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Keys' }).getByText('ten frames').waitFor();
    await page.keyboard.press('Escape');
  });

  it('moves a marker by dragging it, snapped to the playhead, and by keys; undo brings it back', async () => {
    const times = () =>
      region('Markers')
        .getByRole('textbox', { name: /^Time of the marker/ })
        .evaluateAll((all) => all.map((each) => (each as HTMLInputElement).value));
    const ruler = page.getByRole('slider', { name: 'Time ruler' });
    const box = await ruler.boundingBox();
    if (!box) throw new Error('There is no ruler');
    const at = (seconds: number) => box.x + (seconds / 48) * box.width;
    await page.mouse.click(at(20), box.y + 8);
    await expect
      .poll(() => page.evaluate(() => document.querySelector('video')?.currentTime ?? 0))
      .toBeGreaterThan(19.8);
    await page.mouse.move(at(15.48) + 4, box.y + 26);
    await page.mouse.down();
    await page.mouse.move(at(18), box.y + 26, { steps: 4 });
    await page.mouse.move(at(20) + 3, box.y + 26, { steps: 4 });
    await page.mouse.up();
    await expect.poll(times).toContainEqual(expect.stringMatching(/^01:00:(19:2[34]|20:0[01])$/));
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(times).toContain('01:00:15:12');
    await page.locator('#chapters').getByText('First cut').click();
    await page.keyboard.press('.');
    await expect.poll(times).toContain('01:00:15:13');
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await expect.poll(times).toContain('01:00:15:12');
    await ruler.focus();
    await page.keyboard.press('+');
    await page.getByRole('button', { name: BUTTONS.showAll }).click();
    expect(await page.getByRole('button', { name: BUTTONS.showAll }).count()).toBe(0);
  });

  it('shows what an import would change before it is taken, and exports what viewers see', async () => {
    const otherFile = path.join(folder, 'more.csv');
    writeFileSync(
      otherFile,
      'timecode,name,comment,colour\n01:00:15:12,First cut again,,green\n01:00:40:00,,only a note,green\n',
    );
    await page.getByLabel('Marker file').setInputFiles(otherFile);
    const dialog = page.getByRole('dialog', { name: /2 markers in/ });
    await dialog.getByText('took the note as the name').waitFor();
    await dialog.getByText('1 new, 1 changed').waitFor();
    await dialog.getByText('2 new, 4 taken away').waitFor();
    await expectAccessible(dialog);
    await dialog.getByRole('button', { name: 'Merge by time' }).click();
    await page.locator('#chapters').getByText('First cut again').waitFor();
    await page.getByRole('button', { name: BUTTONS.export }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Lines of text' }).first().click(),
    ]);
    expect(await textOf(download)).toBe(
      '0:00 Why a scarf joint\n0:15 First cut again\n0:31 Bolts in\n0:40 only a note\n',
    );
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await page.locator('#chapters').getByText('green (3)').waitFor();
  });

  it('takes words, tags, a picture and a playlist, and saves them by itself', async () => {
    await page.getByLabel('Summary').fill('We cut the second scarf 🛶 and bolt the keel.');
    await page.getByLabel('Tags', { exact: true }).fill('keel, scarf joint,');
    await page.getByLabel('Tags', { exact: true }).press('Enter');
    await page.getByRole('button', { name: 'Remove the tag scarf joint' }).waitFor();
    await page.getByRole('button', { name: /Use the frame at/ }).click();
    await page.getByText('from the video · 1280×720').first().waitFor();
    const small = path.join(folder, 'small.png');
    await sharp({ create: { width: 400, height: 300, channels: 3, background: '#999' } })
      .png()
      .toFile(small);
    await rail()
      .getByRole('checkbox', { name: /Marrow Quay/ })
      .click();
    await page.getByRole('radio', { name: 'No it is for anyone' }).check();
    await page.getByLabel('Picture file').setInputFiles(small);
    await rail().getByText('wants at least 1000').first().waitFor();
    await page.getByRole('button', { name: BUTTONS.undo }).click();
    await rail().getByText('● ready').waitFor();

    await rail().getByRole('button', { name: 'No playlist chosen' }).click();
    await page.getByLabel('Name of a new playlist').fill('Plank by Plank');
    await page.getByRole('button', { name: 'Create' }).click();
    await page.getByRole('checkbox', { name: 'Plank by Plank' }).click();
    await rail().getByText('In “Plank by Plank”').waitFor();
    await page.keyboard.press('Escape');

    await page.getByLabel('Title', { exact: true }).fill('x'.repeat(97));
    await rail()
      .getByRole('button', { name: /1 characters over the 96.*no word of it fits/ })
      .waitFor();
    // A title of words is cut at one of them, and what went is said.
    await page.getByLabel('Title', { exact: true }).fill(`Keel ${'oak '.repeat(25)}`);
    await region('Preview').getByText('the end of the title').waitFor();
    await page.getByLabel('Title', { exact: true }).fill('Keel, part two 🛶');
    await page.getByLabel('Title', { exact: true }).blur();
    await page.getByRole('radio', { name: /Everyone/ }).check();
    await rail().getByText('● ready').waitFor();
    await page.getByText('all saved').waitFor();
    await page.reload();
    await page.getByRole('heading', { level: 1, name: 'Keel, part two 🛶' }).waitFor();
    expect(await page.getByLabel('Summary').inputValue()).toContain('bolt the keel');
    await expectAccessible(page);
  });

  it('carries it to live while the page follows, the share link being there from the first moment', async () => {
    await rail().getByRole('button', { name: 'Send to Marrow Quay' }).click();
    await rail().getByRole('button', { name: BUTTONS.copyLink }).click();
    const link = await page.evaluate(() => navigator.clipboard.readText());
    expect(link).toMatch(/\/watch\//);
    await page.goto(home);
    await page.getByRole('link', { name: /Keel, part two/ }).waitFor();
    await page.getByText('Live · checked').waitFor();
    await expectAccessible(page);
    await page.getByRole('link', { name: /Keel, part two/ }).click();
    const history = region('History');
    for (const step of ['Sent to', ...Object.values(STOP_WORDS)]) {
      await history.getByText(step, { exact: false }).first().waitFor();
    }
    await expectAccessible(page);
  });

  it('shows on the site’s watch page what the Sheet said', async () => {
    const link = await rail().getByRole('link', { name: 'Watch page' }).getAttribute('href');
    const watch = await (await browser.newContext()).newPage();
    await watch.goto(link ?? '');
    await watch.getByRole('heading', { level: 1, name: 'Keel, part two 🛶' }).waitFor();
    await watch.getByText('We cut the second scarf 🛶').waitFor();
    await watch.getByText('scarf joint', { exact: true }).waitFor();
    await watch.getByText('In the playlist “Plank by Plank”').waitFor();
    expect(await watch.getByText('fix the colour here').count()).toBe(0);
    await watch.getByRole('button', { name: '0:31' }).first().click();
    await watch.waitForFunction(() => (document.querySelector('video')?.currentTime ?? 0) >= 31);
    const wide = await watch.getByAltText('Thumbnail').evaluate((image: HTMLImageElement) => image.naturalWidth);
    expect(wide).toBe(1280);
    await expectAccessible(watch);
    await watch.context().close();
  });

  it('ends by link where that is meant, and holds what is for everyone until one word opens it', async () => {
    const run = (...args: string[]) => startedKettle(args, machine.env);
    const sent = await run(
      ...['send', clip, '--channel', 'tide notes', '--title', 'By the command line', '--markers', edl],
      ...['--chapters', 'GREEN', '--privacy', 'link', '--for-children', 'no', '--again', '--watch'],
    );
    expect(sent.said).toBe('');
    expect(sent.out).toContain(STOP_WORDS.proofed);
    const status = JSON.parse((await run('status', '--json')).out) as Record<string, unknown>[];
    const { size } = statSync(clip);
    expect(status.find((line) => line.title === 'By the command line')).toEqual({
      video: expect.any(String),
      drop: expect.any(String),
      title: 'By the command line',
      channel: 'Tide Notes',
      site: 'lanternfold',
      stop: 'live',
      state: 'live',
      link: expect.stringContaining('/watch/'),
      bytesSent: size,
      bytesTotal: size,
    });
    expect((await run('send', clip, '--channel', 'Nowhere')).said).toContain(
      'Connected are “Marrow Quay”, “Tide Notes”',
    );
    expect((await run('send', '/no/such.mp4', '--channel', 'Tide Notes')).said).toContain('There is no file');
    expect((await run('send', clip, '--channel', 'Tide Notes')).said).toContain('is here already');
    await page.goto(home);
    await page.getByText('Live · by link · checked').waitFor();
    const set = await run('set', 'By the command line', 'privacy=everyone', 'release=on my word');
    expect(set).toMatchObject({ said: '', status: 0 });
    expect((await run('send', 'By the command line', '--watch')).out).toContain('Changes sent to the site: privacy');
    await page.locator('td').getByText(STATE_WORDS.held).waitFor();
    await page.getByRole('link', { name: /By the command line/ }).click();
    await rail().getByRole('button', { name: BUTTONS.openToEveryone }).click();
    const sure = page.getByRole('alertdialog', { name: 'Open it to everyone on Tide Notes?' });
    await sure.getByText('After that, everyone can see it.').waitFor();
    await sure.getByRole('button', { name: BUTTONS.notNow }).click();
    await rail().getByText(STATE_WORDS.held).waitFor();
    await rail().getByRole('button', { name: BUTTONS.openToEveryone }).click();
    await sure.getByRole('button', { name: BUTTONS.openIt }).click();
    await rail().getByText('Live · checked').waitFor();
  });

  it('says what is wrong with a file that is no video', async () => {
    const words = path.join(folder, 'notes.mp4');
    writeFileSync(words, 'only words');
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(words);
    await page.getByText('This file cannot be used').waitFor();
    await page.getByText('This is not a video file').first().waitFor();
    const empty = path.join(folder, 'empty.mp4');
    writeFileSync(empty, '');
    await page.getByLabel('Finished video files').setInputFiles(empty);
    await notice('“empty.mp4” is empty');
  });

  it('serves no other host and no page of another origin', async () => {
    const status = (method: string, path: string, headers: Record<string, string>) =>
      new Promise<number | undefined>((resolve, reject) => {
        const port = Number(new URL(home).port);
        const asked = http.request({ host: '127.0.0.1', port, path, method, headers }, (answer) => {
          answer.resume();
          resolve(answer.statusCode);
        });
        asked.on('error', reject).end();
      });
    expect(await status('GET', '/api/board', { host: 'kettle.example' })).toBe(403);
    expect(await status('GET', '/', { host: 'kettle.example' })).toBe(403);
    expect(await status('POST', '/api/videos', { origin: 'http://evil.example' })).toBe(403);
    expect(await status('PATCH', '/api/arrivals/x', { origin: 'http://evil.example' })).toBe(403);
    expect(await status('GET', '/api/health', {})).toBe(200);
  });

  it('disconnects, and the permission is gone at the site', async () => {
    await page.goto(`${home}/channels`);
    await page.getByRole('button', { name: BUTTONS.disconnect }).click();
    await page.getByRole('alertdialog').getByRole('button', { name: BUTTONS.disconnect }).click();
    await page.getByText('○ disconnected').waitFor();
    await page.getByRole('button', { name: BUTTONS.connectAgain }).waitFor();
    // RFC 7009: the site was asked to forget the permission, and it has.
    const asked = await askedOf('lanternfold');
    expect(asked.filter(({ path: at }) => at.includes('revoke'))).toMatchObject([{ method: 'POST', status: 200 }]);
    const permissions = (await (await fetch(`${addressOf('lanternfold')}/control/permissions`)).json()) as unknown[];
    expect(permissions).toEqual([]);
  });

  it('without a page ever asking for what its policy forbids', () => {
    expect(kept).toEqual([]);
  });
});

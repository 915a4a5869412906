import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import * as desk from '../setup/at-desk';
import { expectReachable, itsBrowser } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';
import { stepsInOrder } from '../setup/steps';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let page: Page;
let videoId: string;
const CHANNELS = {
  lanternfold: 'Marrow Quay',
  fieldgate: 'Marrow Quay Films',
  pipwire: '@marrowquay',
  stallmarket: 'Marrow Quay Tools',
};

stepsInOrder();
beforeAll(async () => {
  const channels = await desk.channelsOfTheYard();
  const clip = makeClip({ name: 'a-scarf-joint.mp4', seconds: 5 });
  videoId = await desk.bringFile(clip, 'none');
  for (const name of Object.values(CHANNELS)) await desk.tickChannel(videoId, channels.get(name) ?? '', true);
  await desk.editVideo(videoId, {
    ...{ title: 'A scarf joint', summary: 'Two planks become one.', privacy: 'everyone' },
    ...{ products: ['2000000000053'], release: 'together' },
    opensAt: { wall: '2099-01-01T12:00:00', zone: 'UTC' },
  });
  // A shop that opens by itself cannot wait for the others.
  const byItself = { channelId: channels.get(CHANNELS.stallmarket), set: { release: 'by itself' } };
  await desk.editOnChannel(videoId, byItself);
  await desk.untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
  const ofFile = { match: 'a-scarf-joint' };
  await desk.setFaultsAt('lanternfold', {
    ...{ ...ofFile, kind: 'rights match', wants: 'close', from: 1, to: 3, value: 'Slow Tide' },
    reason: 'Harbour Lane Music',
  });
  await desk.setFaultsAt('fieldgate', { ...ofFile, kind: 'alter', field: 'title', value: 'A scarf join', times: 1 });
  await desk.setFaultsAt('stallmarket', {
    ...{ ...ofFile, kind: 'turn down', times: 1 },
    ...{ reason: 'The saw is listed, but not named', remedy: 'Name it' },
  });
  page = await (await browser.newContext({ viewport: { width: 1280, height: 900 } })).newPage();
});
const dropOn = async (site: keyof typeof CHANNELS) => {
  const { channels } = await desk.lookAtSheet(videoId);
  const drop = channels.find(({ name }) => name === CHANNELS[site])?.drop;
  if (!drop) throw new Error(`nothing is on ${site}`);
  return drop;
};
const untilOn = (site: keyof typeof CHANNELS, state: string) =>
  expect.poll(async () => (await dropOn(site)).state).toBe(state);
const open = async (site: keyof typeof CHANNELS) => page.goto(`${home}/drops/${(await dropOn(site)).id}`);
const part = (name: string) => page.getByRole('region', { name, exact: true });
const thereAt = async (site: string) => {
  const all = await desk.videosAt(site);
  return all.find(({ fileName }) => String(fileName).startsWith('a-scarf-joint')) as Record<string, unknown>;
};

describe('a video that has something to settle on every site', () => {
  it('goes up, and waits where somebody has to decide', async () => {
    await desk.sendVideo(videoId);
    await untilOn('lanternfold', 'snag');
    await untilOn('fieldgate', 'snag');
    await untilOn('stallmarket', 'snag');
    await untilOn('pipwire', 'held');
    await page.goto(home);
    await page.getByRole('link', { name: /^Notices, 3 new$/ }).click();
    const list = part('What happened');
    await expect.poll(() => list.getByText('needs you').count()).toBe(3);
    await expectReachable(page);
    await list.getByRole('button', { name: 'Mark all as seen' }).click();
    await page.getByRole('link', { name: 'Notices', exact: true }).waitFor();
  });

  it('shows a match on its ruler; the part is silenced, and nothing is found in the new file', async () => {
    await open('lanternfold');
    const matches = part('Rights matches');
    await matches.getByText('Nobody can watch the video in any country').waitFor();
    await matches.getByRole('img', { name: /Where the matches lie/ }).waitFor();
    expect(await matches.getByRole('radio', { name: /^Agree/ }).count()).toBe(0);
    await expectReachable(matches);
    await matches.getByRole('radio', { name: /^Take the sound off there/ }).check();
    await matches.getByRole('button', { name: 'Send it without that' }).click();
    const sure = page.getByRole('alertdialog');
    await sure.getByText('its link ends').waitFor();
    await sure.getByRole('button', { name: 'Make the file and send it' }).click();
    await untilOn('lanternfold', 'held');
    await matches.getByText('In files sent before: 1').waitFor();
    await part('File and site').getByText('720 lines').waitFor();
  });

  it('shows what a site has changed, text beside text, and puts it right', async () => {
    await open('fieldgate');
    const different = part('Different on Fieldgate');
    await different.getByText('joint', { exact: true }).first().waitFor();
    await expectReachable(different);
    await different.getByRole('button', { name: 'Put it right there' }).click();
    await untilOn('fieldgate', 'held');
    await different.waitFor({ state: 'detached' });
    expect(JSON.stringify(await thereAt('fieldgate'))).toContain('"A scarf joint"');
  });

  it('was turned down, is mended, and handed in again with what is different', async () => {
    await desk.editVideo(videoId, { summary: 'Two planks become one, with a ryoba saw.' });
    await open('stallmarket');
    await part('Reviews').getByText('The saw is listed, but not named').waitFor();
    await page.getByRole('button', { name: BUTTONS.tryAgain }).click();
    await untilOn('stallmarket', 'live');
    await part('Reviews').getByText('● approved').waitFor();
    await part('Reviews').getByText('Different from the time before: text').waitFor();
  });

  it('is released on all of them at a set time, none of them early', async () => {
    const at = new Date(Math.ceil(Date.now() / 1000) * 1000 + 12_000);
    const wall = at.toISOString().slice(0, 19);
    await desk.editVideo(videoId, { opensAt: { wall, zone: 'UTC' } });
    for (const site of ['lanternfold', 'fieldgate', 'pipwire'] as const) await untilOn(site, 'live');
    for (const site of ['lanternfold', 'fieldgate', 'pipwire'] as const) {
      const { publishedAt } = await thereAt(site);
      expect(Date.parse(String(publishedAt)), site).toBeGreaterThanOrEqual(at.getTime());
      expect((await fetch((await dropOn(site)).link ?? '')).status, site).toBe(200);
    }
  });

  it('is read again when asked for: a title that somebody changed there is taken over, and former words are put back', async () => {
    await open('lanternfold');
    const { fileName } = await thereAt('lanternfold');
    await desk.changedAt('lanternfold', String(fileName), { title: 'A scarf joint, slowly' });
    const different = part('Different on Lanternfold');
    await page.getByRole('button', { name: BUTTONS.readAgain }).click();
    await different.getByText('Somebody has changed it there').waitFor();
    await different.getByRole('button', { name: 'Take it over here' }).click();
    await different.waitFor({ state: 'detached' });
    await expect
      .poll(async () => (await desk.lookAtSheet(videoId)).channels.find(({ name }) => name === 'Marrow Quay')?.own)
      .toMatchObject({
        title: 'A scarf joint, slowly',
      });
    await page.getByRole('button', { name: 'Send the changes' }).waitFor({ state: 'detached' });
    await desk.editVideo(videoId, { summary: 'Another text.' });
    await page.getByRole('button', { name: 'Send the changes' }).click();
    const former = part('What it was before');
    await former.getByText('there now').waitFor();
    await former.getByText('as it was sent first').click();
    await former.getByRole('button', { name: 'Put these words back' }).last().click();
    await page.getByText('Changed here, not sent yet:').waitFor();
    await expectReachable(former);
  });
});

describe('how a manager is told', () => {
  it('is set by ticking, tried at once, and says what is missing', async () => {
    await page.goto(`${home}/notices`);
    const form = part('How you are told');
    await form.getByRole('checkbox', { name: /^By e-mail/ }).click();
    await page.getByText('To send mail, say the server, the sender and the address to send to.').first().waitFor();
    const keep = async (label: string, value: string) => {
      const field = form.getByLabel(label, { exact: true });
      await Promise.all([
        page.waitForResponse(/notices\/settings$/),
        field.fill(value).then(() => field.press('Enter')),
      ]);
    };
    await keep('To', 'yard@quay.example');
    await keep('From', 'kettle@quay.example');
    await keep('Mail server', '127.0.0.1');
    const port = machine.sitesPort + 5;
    await keep('Port', String(port));
    await form.getByRole('checkbox', { name: /^By e-mail/ }).click();
    await form.getByRole('button', { name: 'Send a trial mail' }).click();
    await page.getByText('The trial was sent').first().waitFor();
    const mails = (await (await fetch(`http://127.0.0.1:${port - 1}/control/mails`)).json()) as { subject: string }[];
    expect(mails.map(({ subject }) => subject)).toEqual(['A trial of your notices']);
    const quiet = form.getByRole('checkbox', { name: /^Quiet hours/ });
    const from = form.getByLabel('From', { exact: true });
    await quiet.click();
    await expect.poll(() => from.count()).toBe(2);
    await expectReachable(form);
    await page.setViewportSize({ width: 390, height: 844 });
    await expectReachable(page, ['light']);
    // Off again, at the server too: at night they would keep what the next step waits for.
    await Promise.all([page.waitForResponse(/notices\/settings$/), quiet.click()]);
    await expect.poll(() => from.count()).toBe(1);
  });

  it('is shown by the browser at once, and after quiet hours what came in them, as one where it is much', async () => {
    const context = await browser.newContext();
    await context.grantPermissions(['notifications']);
    // Headless, nobody sees them: what would be shown is written down.
    await context.addInitScript(() => {
      const shown: string[] = [];
      class Shown {
        static permission = 'granted';
        static requestPermission = async () => 'granted';
        onclick = null;
        constructor(title: string, { body }: { body: string }) {
          shown.push(`${title}: ${body}`);
        }
      }
      Object.assign(window, { Notification: Shown, shown });
    });
    const other = await context.newPage();
    await other.goto(`${home}/notices`);
    const shown = () => other.evaluate(() => (window as unknown as { shown: string[] }).shown);
    const drop = await dropOn('fieldgate');
    const [channelId = ''] = (await desk.lookAtSheet(videoId)).channels.map(({ id }) => id);
    const tell = (says: string) =>
      desk.transaction((trx) => desk.tell(trx, { id: drop.id, videoId, channelId }, 'needs you', says));
    const [asked] = await Promise.all([
      other.waitForResponse(/notices\?for=browser$/),
      other.getByRole('checkbox', { name: /^In the browser/ }).click(),
    ]);
    await asked.finished();
    await tell('One by day');
    await expect.poll(shown).toEqual([expect.stringMatching(/^A scarf joint.*: One by day$/)]);
    const minute = new Date().getUTCHours() * 60 + new Date().getUTCMinutes();
    const quiet = { from: (minute + 1439) % 1440, to: (minute + 60) % 1440, zone: 'UTC' };
    await desk.setNotices({ set: { quiet } });
    for (const says of ['a', 'b', 'c', 'd']) await tell(`In the night: ${says}`);
    await expect.poll(() => other.getByText('In the night: d').count()).toBe(1);
    expect(await shown()).toHaveLength(1);
    await desk.setNotices({ set: { quiet: null } });
    await expect.poll(shown).toHaveLength(2);
    expect((await shown())[1]).toMatch(/^4 notices, 4 to look at: A scarf joint/);
    await context.close();
  });
});

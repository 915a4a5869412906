import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Page } from 'playwright-core';
import { ensureBuild } from '../bin/setup/build.mjs';
import { startChromium } from '../tests/setup/chromium';
import { fastest } from './fastest';
import { machineWith, measureOn } from './machine';
import { rounded, SHORT, say } from './say';

const SIZES = SHORT ? [50, 100] : [2000, 10_000];
const CHANNELS = 8;
/** What opens and has opened is spread over so many days before today, and after. */
const DAYS_EACH_WAY = 365;
/** Videos that a change of a default reaches. */
const UNSENT = SHORT ? 50 : 2000;

await ensureBuild(path.resolve('.'));
const machine = await machineWith(['stand-ins', 'web']);
const home = `http://127.0.0.1:${machine.env.KETTLE_PORT}`;

await measureOn(machine, undefined, async () => {
  const { channelsOfTheYard } = await import('../tests/setup/desk');
  const { manyVideos } = await import('../tests/setup/many-videos');
  const { database } = await import('@/store/database');
  const { newId } = await import('@/store/ids');
  const { editVideo } = await import('@/desk/video/edit-video');
  const { newSeries } = await import('@/desk/defaults/series');

  const channels = [...(await channelsOfTheYard()).values()];
  const db = database();
  const [like] = await db('channels').whereIn('id', channels).limit(1);
  while (channels.length < CHANNELS) {
    const id = newId();
    await db('channels').insert({ ...like, id, siteChannelId: id, name: `Channel ${channels.length + 1}` });
    channels.push(id);
  }
  const browser = await startChromium();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const first = await lookAt(page);
  say({ measure: 'the Board, empty', videos: 0, ...first });
  let made = 0;
  for (const size of SIZES) {
    await manyVideos(size - made, channels, { from: made });
    made = size;
    const now = await lookAt(page);
    say({
      measure: 'the Board, full',
      videos: size,
      channels: CHANNELS,
      ...now,
      serverTimesEmpty: rounded(now.serverMilliseconds / first.serverMilliseconds, 1),
      contentTimesEmpty: rounded(now.contentMilliseconds / first.contentMilliseconds, 1),
    });
    say({ measure: 'one changed video, until it shows', videos: size, ...(await oneChange(page)) });
  }
  await spreadOverDays();
  say({ measure: 'a month of the Calendar', videos: made, days: DAYS_EACH_WAY * 2, ...(await lookAtMonth()) });
  const [video] = await db('videos').select('id').limit(1);
  const pages = { Board: '/', Sheet: `/videos/${video.id}` };
  for (const [name, at] of Object.entries(pages)) {
    say({
      measure: `JavaScript of the ${name}`,
      ...(await scriptsOf(at)),
      ofAPageWithNothingOnIt: await scriptsOf('/none'),
    });
  }
  const owner = await newSeries({ name: 'Many' });
  await manyVideos(UNSENT, channels, { from: made, states: ['draft'], seriesId: owner });
  const alone = await longestAnswer(new Promise((resolve) => setTimeout(resolve, SHORT ? 100 : 2000)));
  const start = performance.now();
  const changed = fetch(`${home}/api/defaults/series/${owner}`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ place: 'The slip' }),
  });
  const beside = await longestAnswer(changed);
  const { ok } = await changed;
  if (!ok) throw new Error('The default was not changed');
  say({
    measure: 'change a default of a series at the pages’ server, and others wait there at most',
    videos: UNSENT,
    channelsEach: CHANNELS,
    milliseconds: rounded(performance.now() - start),
    longestWaitMilliseconds: rounded(beside),
    longestWaitAloneMilliseconds: rounded(alone),
  });
  await browser.close();

  /** What is live went out on one of the days before, and what is held opens on one of those to come. */
  async function spreadOverDays(): Promise<void> {
    const day = db.raw('FLOOR(RAND(7) * ?)', [DAYS_EACH_WAY]);
    const wall = db.raw("DATE_FORMAT(UTC_DATE() + INTERVAL ? + 1 DAY, '%Y-%m-%dT18:00:00')", [day]);
    await db('drops')
      .where({ state: 'live' })
      .update({ openedTo: 'everyone', openedAt: db.raw('UTC_TIMESTAMP(3) - INTERVAL ? DAY', [day]) });
    const held = db('drops').where({ state: 'held' }).select('videoId');
    const set = "JSON_SET(own, '$.release', 'at a time', '$.opensAt', JSON_OBJECT('wall', ?, 'zone', 'Europe/Berlin'))";
    await db('videos')
      .whereIn('id', held)
      .update({ own: db.raw(set, [wall]) });
  }

  /** How long the server takes for the month around today, how much it tells, and how much is in it. */
  async function lookAtMonth(): Promise<{ entries: number; more: boolean; milliseconds: number; bytes: number }> {
    const day = (from: number) => new Date(Date.now() + from * 86_400_000).toISOString();
    const at = `${home}/api/calendar?${new URLSearchParams({ from: day(-15), to: day(20) })}`;
    let told = '';
    const milliseconds = await fastest(async () => {
      told = await (await fetch(at)).text();
    });
    const { entries, more } = JSON.parse(told) as { entries: unknown[]; more: boolean };
    return { entries: entries.length, more, milliseconds: rounded(milliseconds), bytes: told.length };
  }

  /** How long one changed title takes from being saved to being seen, and what is read for it. */
  async function oneChange(on: Page): Promise<{ milliseconds: number; bytes: number }> {
    await on.goto(home);
    await on.getByRole('region', { name: 'Videos' }).getByRole('link').first().waitFor();
    await on.waitForLoadState('networkidle').catch(() => undefined);
    const href = await on.getByRole('region', { name: 'Videos' }).getByRole('link').first().getAttribute('href');
    let bytes = 0;
    const hear = async (response: import('playwright-core').Response) => {
      if (new URL(response.url()).pathname.startsWith('/api/board'))
        bytes += (await response.body().catch(() => Buffer.alloc(0))).length;
    };
    on.on('response', hear);
    const title = `Changed at ${Date.now()}`;
    await editVideo(href?.split('/').pop() ?? '', { title });
    const since = performance.now();
    await on.getByText(title).first().waitFor();
    const milliseconds = rounded(performance.now() - since);
    on.off('response', hear);
    return { milliseconds, bytes };
  }
});

/** The longest that another request waits for its answer while something goes on, in milliseconds. */
async function longestAnswer(until: Promise<unknown>): Promise<number> {
  let [over, longest] = [false, 0];
  void until.finally(() => {
    over = true;
  });
  while (!over) {
    const since = performance.now();
    await (await fetch(`${home}/api/many`)).text();
    longest = Math.max(longest, performance.now() - since);
  }
  return longest;
}

/** Bytes after gzip of the scripts that a page names itself, without those for browsers that know no modules. */
async function scriptsOf(at: string): Promise<{ scripts: number; gzipBytes: number }> {
  const html = await (await fetch(`${home}${at}`)).text();
  const named = new Set([...html.matchAll(/static\/chunks\/[\w.~-]+\.js/g)].map(([file]) => file));
  const old = /src="[^"]*(static\/chunks\/[\w.~-]+\.js)"[^>]*nomodule/i.exec(html)?.[1];
  const files = [...named].filter((file) => file !== old);
  const bodies = await Promise.all(files.map(async (file) => (await fetch(`${home}/_next/${file}`)).arrayBuffer()));
  return { scripts: files.length, gzipBytes: bodies.reduce((sum, body) => sum + gzipSync(body).length, 0) };
}

/** The first answer of the Board: the server's time and bytes, what its data alone are, and when a person sees it. */
async function lookAt(page: Page) {
  let html = '';
  const server = await fastest(async () => {
    html = await (await fetch(home)).text();
  });
  const data = await (await fetch(`${home}/api/board`)).text();
  const content = await fastest(async () => {
    await page.goto(home, { waitUntil: 'commit' });
    await page.locator('main h1').waitFor();
    await page
      .locator('main')
      .getByRole('link')
      .first()
      .or(page.getByText('Nothing is on the Board yet'))
      .first()
      .waitFor();
  });
  return {
    serverMilliseconds: rounded(server),
    pageBytes: html.length,
    dataBytes: data.length,
    contentMilliseconds: rounded(content),
  };
}

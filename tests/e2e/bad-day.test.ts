import { createHash } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { itsBrowser } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';
import { type SlowLine, slowLine } from '../setup/slow-line';
import { stepsInOrder } from '../setup/steps';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let line: SlowLine | undefined;

const MIB = 1024 * 1024;
const clip = makeClip({ name: 'bad-day.mp4', seconds: 40, bitRate: '2600k' });
const bytes = readFileSync(clip);

stepsInOrder();

beforeAll(async () => {});

afterAll(async () => {
  await line?.end();
});

async function pageAt(address: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(address);
  return page;
}

interface BoardRow {
  videoId: string;
  cut?: { id: string; fileName: string; state: string; size: number; received: number };
}
const board = async (): Promise<BoardRow[]> =>
  ((await (await fetch(`${home}/api/board`)).json()) as { rows: BoardRow[] }).rows;

describe('a bad day', () => {
  it('a transfer that takes many times as long as a request may still comes in, by itself', async () => {
    // 1.6 MB a second, and 3 s for a request: the first one, of 8 MiB, is cut off, and the whole takes over 8 s.
    expect(statSync(clip).size).toBeGreaterThan(12 * MIB);
    line = await slowLine(Number(new URL(home).port), 1.6 * MIB, 3000);
    const page = await pageAt(line.address);
    await page.getByText('Nothing is on the Board yet').waitFor();
    await page.locator('input[type=file]').first().setInputFiles(clip);
    await expect.poll(async () => (await board())[0]?.cut?.state).toBe('ready');
    expect(line.cutOff()).toBeGreaterThan(0);
    expect((await board())[0]?.cut?.size).toBe(bytes.length);
    await page.close();
  });

  it('a file whose page went in the middle goes on by itself when a page is there again', async () => {
    const before = (await board()).length;
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const first = await context.newPage();
    await first.goto(line?.address ?? home);
    const [row] = await board();
    // A file of the browser's own file system has a handle that needs no leave: headless, nobody could give one.
    await first.evaluate(async (address) => {
      const bytes = await (await fetch(address)).arrayBuffer();
      // A `free` box behind it makes it another file (ISO/IEC 14496-12, 8.1.2).
      const free = new Uint8Array([0, 0, 0, 8, 0x66, 0x72, 0x65, 0x65]);
      const folder = await navigator.storage.getDirectory();
      const handle = await folder.getFileHandle('asleep.mp4', { create: true });
      const writing = await handle.createWritable();
      await writing.write(bytes);
      await writing.write(free);
      await writing.close();
      const item = { kind: 'file', getAsFile: () => null, getAsFileSystemHandle: async () => handle };
      const dropped = new Event('drop', { bubbles: true, cancelable: true });
      Object.defineProperty(dropped, 'dataTransfer', { value: { items: [item], files: [], types: ['Files'] } });
      document.querySelector('main')?.dispatchEvent(dropped);
    }, `/api/cuts/${row?.cut?.id}/file`);
    const arriving = async () => (await board()).find(({ cut }) => cut?.fileName === 'asleep.mp4')?.cut;
    await expect.poll(async () => (await arriving())?.received ?? 0).toBeGreaterThan(0);
    await first.close();
    expect((await arriving())?.state).toBe('arriving');
    const second = await context.newPage();
    await second.goto(line?.address ?? home);
    await expect.poll(async () => (await arriving())?.state).toBe('ready');
    expect(await board()).toHaveLength(before + 1);
    await context.close();
  });

  it('the file is played whole, or the part that is asked for, and no part that is not there', async () => {
    const row = (await board()).find(({ cut }) => cut?.fileName === 'bad-day.mp4');
    const at = `${home}/api/cuts/${row?.cut?.id}/file`;
    const part = async (range: string) => {
      const answer = await fetch(at, { headers: { range } });
      const body = Buffer.from(await answer.arrayBuffer());
      return { status: answer.status, of: answer.headers.get('content-range'), body };
    };
    const whole = await fetch(at);
    expect([whole.status, whole.headers.get('accept-ranges')]).toEqual([200, 'bytes']);
    const digest = (body: Uint8Array) => createHash('sha256').update(body).digest('hex');
    expect(digest(Buffer.from(await whole.arrayBuffer()))).toBe(digest(bytes));
    // RFC 9110, 14.1.2: a range, one to the end, and the last bytes; 15.3.7 for 206.
    const size = bytes.length;
    expect(await part('bytes=100-199')).toEqual({
      status: 206,
      of: `bytes 100-199/${size}`,
      body: bytes.subarray(100, 200),
    });
    expect(await part(`bytes=${size - 50}-`)).toMatchObject({ status: 206, body: bytes.subarray(size - 50) });
    expect(await part('bytes=-20')).toMatchObject({ status: 206, body: bytes.subarray(size - 20) });
    expect(await part(`bytes=5-${size * 2}`)).toMatchObject({ status: 206, of: `bytes 5-${size - 1}/${size}` });
    // 15.5.17 for 416; 14.2: what is no range is passed over.
    expect(await part(`bytes=${size}-`)).toMatchObject({ status: 416, of: `bytes */${size}` });
    expect(await part('lines=1-2')).toMatchObject({ status: 200 });
  });

  it('pages hear of what was changed elsewhere, also while their line was gone', async () => {
    const quick = await slowLine(Number(new URL(home).port), 1e9, 600_000);
    const page = await pageAt(quick.address);
    const [row] = await board();
    const rename = (title: string) =>
      fetch(`${home}/api/videos/${row?.videoId}`, {
        method: 'PATCH',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ title }),
      });
    const shown = (title: string) => page.getByRole('link', { name: title }).first();
    await page.getByRole('link', { name: /./ }).first().waitFor();
    await rename('Told at once');
    await shown('Told at once').waitFor();
    quick.break();
    await rename('Told later');
    await page.getByText('Kettle Drop does not answer at the moment').waitFor();
    expect(await shown('Told later').count()).toBe(0);
    quick.mend();
    await shown('Told later').waitFor();
    // And of what comes after it, as before.
    await rename('A bad day');
    await shown('A bad day').waitFor();
    await page.close();
    await quick.end();
  });

  it('a marker file of seven megabytes is looked through while everything else goes on', async () => {
    const [row] = await board();
    const chapters = Array.from({ length: 150_000 }, (_, n) => ({ startTime: n / 10, title: `Chapter ${n}, of many` }));
    const body = JSON.stringify({ version: '1.2.0', chapters });
    expect(body.length).toBeGreaterThan(7_000_000);
    let [answered, over] = [0, false];
    const looked = fetch(`${home}/api/videos/${row?.videoId}/markers?preview&name=many.json`, { method: 'POST', body });
    void looked.finally(() => {
      over = true;
    });
    while (!over) {
      await (await fetch(`${home}/api/board`)).text();
      if (!over) answered += 1;
    }
    expect(await (await looked).json()).toMatchObject({ format: 'json', markers: 150_000 });
    // In one thread, not one of these would have been answered while the file was read.
    expect(answered).toBeGreaterThan(10);
  });

  it('a database that is killed is missed, said to be away, and everything goes on when it is back', async () => {
    const page = await pageAt(home);
    await page.getByRole('link', { name: /A bad day/ }).waitFor();
    const away = machine.killDatabase();
    await expect.poll(async () => (await fetch(`${home}/api/health`)).status).toBe(503);
    const said = await (await fetch(`${home}/api/board`)).json();
    expect(said).toMatchObject({ status: 503, detail: expect.stringContaining('database') });
    await away;
    await expect.poll(async () => (await fetch(`${home}/api/health`)).status).toBe(200);
    await page.reload();
    await page.getByRole('link', { name: /A bad day/ }).waitFor();
    await page.close();
  });
});

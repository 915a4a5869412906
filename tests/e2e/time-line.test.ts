import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import { choose, expectAccessible, itsBrowser, untilRead, withOpenSections } from '../setup/browser';
import { makeClip } from '../setup/clips';
import { itsPages } from '../setup/its-pages';
import { stepsInOrder } from '../setup/steps';

const machine = itsPages();
const { home } = machine;
const browser = itsBrowser();
let page: Page;

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-time-line-'));
const clip = makeClip({ name: 'time-line.mp4', seconds: 60, rate: '30000/1001' });
const longer = makeClip({ name: 'time-line-better.mp4', seconds: 64, rate: '30000/1001' });

function write(name: string, text: string): string {
  const file = path.join(folder, name);
  writeFileSync(file, text);
  return file;
}

const per = 30000 / 1001;
const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: per, value });
const range = (start: number, length: number) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start),
  duration: time(length),
});
const marker = (frame: number, name: string, color: string, comment = '') => ({
  OTIO_SCHEMA: 'Marker.2',
  name,
  color,
  comment,
  metadata: {},
  marked_range: range(frame, 0),
});
/** An edit of 70 s from 01:00:00;00, of which the cut is what follows the first 10 s; a marker sits on its clip. */
const otio = write(
  'edit.otio',
  JSON.stringify({
    OTIO_SCHEMA: 'Timeline.1',
    name: 'edit',
    global_start_time: time(107_892),
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      markers: [
        marker(30, 'Slate', 'GREEN'),
        marker(450, 'Low water', 'GREEN'),
        marker(1050, 'Caulking', 'GREEN'),
        marker(1200, 'louder here', 'RED'),
        marker(1230, 'Second coat', 'GREEN'),
        marker(1650, 'Afloat', 'GREEN'),
      ],
      children: [
        {
          OTIO_SCHEMA: 'Track.1',
          kind: 'Video',
          markers: [],
          children: [
            {
              OTIO_SCHEMA: 'Clip.2',
              name: 'A001',
              source_range: range(900, 2100),
              effects: [],
              markers: [marker(2700, '', 'GREEN', 'A gull looks in')],
            },
          ],
        },
      ],
    },
  }),
);

const region = (name: string) => page.getByRole('region', { name });
const panel = () => page.locator('#chapters');
const dialog = () => page.getByRole('dialog');
const timecode = () => page.getByTestId('timecode').innerText();
const lines = async () =>
  (await panel().locator('ol > li > button').allInnerTexts()).map((line) => line.replace(/\s+/g, ' ').trim());
const undo = () => page.getByRole('button', { name: BUTTONS.undo }).click();
const body = () => page.getByRole('heading', { level: 1 }).click();

stepsInOrder();

beforeAll(async () => {
  const { connectedChannels } = await import('../setup/desk');
  await connectedChannels();
  page = await (await withOpenSections(await browser.newContext({ viewport: { width: 1280, height: 900 } }))).newPage();
});

describe('the time line', () => {
  it('shows what an edit’s markers are before they are taken: a note in the place of a name is said', async () => {
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(clip);
    await untilRead(page);
    await page.getByLabel('Marker file').setInputFiles(otio);
    await dialog().getByText('Read as OpenTimelineIO').waitFor();
    await dialog().getByText('took the note as the name').waitFor();
    await expectAccessible(dialog());
    await dialog().getByRole('button', { name: BUTTONS.addMarkers }).click();
    await panel().getByText('green (6)').waitFor();
    await panel()
      .getByRole('checkbox', { name: /^green/ })
      .click();
    await expect.poll(lines).toHaveLength(5);
    await panel().getByText('1 chosen marker becomes no chapter').waitFor();
  });

  it('takes the exported range off, by timecode and with I and O, and lists what lies outside', async () => {
    // OpenTimelineIO counts frames and does not say how timecode names them.
    expect(await page.getByLabel('Time line starts').inputValue()).toBe('00:59:56:12');
    await page.getByRole('checkbox', { name: 'drop-frame' }).click();
    await expect.poll(() => page.getByLabel('Time line starts').inputValue()).toBe('01:00:00;00');
    await page.getByLabel('In (I)').fill('01:00:10;00');
    await page.getByLabel('In (I)').press('Enter');
    await expect.poll(timecode).toBe('01:00:10;00');
    await expect
      .poll(lines)
      .toEqual(['0:05 Low water', '0:25 Caulking', '0:31 Second coat', '0:45 Afloat', '0:50 A gull looks in']);
    await panel().getByText('1 chosen marker becomes no chapter').click();
    await panel().getByText('“Slate” lies before the exported range').waitFor();
    await page.getByText('1 before the video begins').waitFor();

    await panel().getByText('Afloat').click();
    await body();
    await page.keyboard.press('Shift+ArrowRight');
    await page.keyboard.press('o');
    await expect.poll(lines).toHaveLength(4);
    await panel().getByText('“A gull looks in” lies after the exported range').waitFor();
    await undo();
    await expect.poll(lines).toHaveLength(5);
    await page.keyboard.press('i');
    // It was set before, so that it is not moved by a key alone.
    await page.getByRole('alertdialog').getByRole('button', { name: 'Move it' }).click();
    await expect.poll(() => page.getByLabel('In (I)').inputValue()).toBe('01:00:55;10');
    await undo();
    await expect.poll(() => page.getByLabel('In (I)').inputValue()).toBe('01:00:10;00');
    await page.getByLabel('Out (O)').fill('01:00:05;00');
    await page.getByLabel('Out (O)').press('Enter');
    await page.getByText('The out point has to lie after the in point.').first().waitFor();
    await page.getByRole('button', { name: BUTTONS.close }).last().click();
    await expect.poll(() => page.getByLabel('Out (O)').inputValue()).toBe('');
  });

  it('shows the sound and the shots of the cut behind its markers', async () => {
    const ruler = page.getByRole('slider', { name: 'Time ruler' });
    await ruler.locator('path[fill="var(--sunk)"]').waitFor({ state: 'attached' });
    await ruler.focus();
    await page.keyboard.press('+');
    await page.getByRole('button', { name: BUTTONS.showAll }).waitFor();
    await page.keyboard.press('Shift+PageDown');
    await page.keyboard.press('0');
    expect(await page.getByRole('button', { name: BUTTONS.showAll }).count()).toBe(0);
  });

  it('chooses by place and by name, and one by one', async () => {
    await panel().getByText('Narrow down').click();
    await panel().getByRole('checkbox', { name: /^clip/ }).click();
    await expect.poll(lines).toHaveLength(4);
    await panel().getByRole('checkbox', { name: /^clip/ }).click();
    await panel().getByLabel('whose name fits').fill('*t*');
    await expect.poll(lines).toEqual(['0:05 Low water', '0:31 Second coat', '0:45 Afloat']);
    await panel().getByLabel('whose name fits').fill('');
    await expect.poll(lines).toHaveLength(5);
    const row = region('Markers').getByLabel(/Whether viewers see the marker at 01:00:4.;../);
    await choose(row.nth(1), 'never');
    await expect.poll(lines).toEqual(['0:05 Low water', '0:25 Caulking', '0:45 Afloat', '0:50 A gull looks in']);
    await choose(row.nth(0), 'always');
    await expect.poll(async () => (await lines())[2]).toBe('0:30 louder here');
    await undo();
    await undo();
    await expect.poll(lines).toHaveLength(5);
  });

  it('shows a repair before and after, makes it as one change, and undoes it at once', async () => {
    await panel().getByText('The first chapter does not start at 0:00').waitFor();
    await panel().getByText('6 s long; the site wants 10').waitFor();
    await panel().getByRole('button', { name: 'Repair all' }).click();
    await dialog().getByRole('region', { name: 'Before' }).getByText('− 0:05 Low water').waitFor();
    await dialog().getByRole('region', { name: 'After' }).getByText('+ 0:00 Low water').waitFor();
    await expectAccessible(dialog());
    await dialog().getByRole('button', { name: BUTTONS.apply }).click();
    await expect.poll(lines).toEqual(['0:00 Low water', '0:31 Second coat', '0:50 A gull looks in']);
    expect(await panel().getByText('▲').count()).toBe(1);
    await undo();
    await expect.poll(lines).toHaveLength(5);
  });

  it('moves several markers at once, and retimes one in the table', async () => {
    const table = region('Markers');
    await table.getByLabel('Find in names and notes').fill('coat');
    await table.getByRole('checkbox', { name: 'Choose all that are shown' }).check();
    await table.getByLabel('Move those chosen by').fill('5 s');
    await table.getByRole('button', { name: 'Move by' }).click();
    await expect.poll(lines).toContain('0:36 Second coat');
    await table.getByLabel('Find in names and notes').fill('');
    const cell = table.getByLabel('Time of the marker Second coat');
    await cell.fill('01:01:00;00');
    await cell.press('Enter');
    await page
      .getByText(/does not exist in drop-frame/)
      .first()
      .waitFor();
    await page.getByRole('button', { name: BUTTONS.close }).last().click();
    await cell.fill('01:00:47;00');
    await cell.press('Enter');
    await expect.poll(lines).toContain('0:37 Second coat');
  });

  it('takes a table whose columns the manager chooses, and captions that the player shows', async () => {
    const table = write('list.csv', '5.5;Hull;first look\n12;Deck;second look\n');
    await page.getByLabel('Marker file').setInputFiles(table);
    await dialog().getByText('no column is headed').waitFor();
    await choose(dialog().getByLabel('What column 1 is'), 'seconds');
    await choose(dialog().getByLabel('What column 2 is'), 'name');
    await dialog().getByText('2 new', { exact: true }).first().waitFor();
    await dialog().getByRole('button', { name: 'Add beside' }).click();
    await region('Markers').getByLabel('Time of the marker Hull').waitFor();
    expect(await region('Markers').getByLabel('Time of the marker Hull').inputValue()).toBe('01:00:15;14');
    await undo();
    const captions = write(
      'words.srt',
      '1\n00:00:01,000 --> 00:00:03,000\nThe tide turns\nat noon\n\n2\n00:00:02,500 --> 00:00:02,700\nand the hull begins to lift off its blocks\n',
    );
    await page.getByLabel('Caption file').setInputFiles(captions);
    await dialog().getByRole('button', { name: BUTTONS.useAsCaptions }).click();
    const block = region('Captions');
    await block.locator('b', { hasText: 'English' }).waitFor();
    await block.getByText('2 to look at').waitFor();
    await block.getByText(/starts 0\.5 s before the last one ends/).waitFor();
    expect(await page.locator('video track').getAttribute('srclang')).toBe('en');
    // The player adds them one by one as it reads them.
    const cues = () => page.evaluate(() => document.querySelector('video')?.textTracks[0]?.cues?.length);
    await expect.poll(cues).toBe(2);
  });

  it('gives the cut away with its chapters inside, which ffprobe and Kettle Drop read', async () => {
    await page.getByRole('button', { name: BUTTONS.export }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'with its chapters inside' }).click(),
    ]);
    const file = path.join(folder, 'inside.mp4');
    await download.saveAs(file);
    const said = execFileSync('ffprobe', ['-v', 'error', '-show_chapters', '-of', 'json', file], { encoding: 'utf8' });
    const { chapters } = JSON.parse(said) as { chapters: { tags: { title: string } }[] };
    expect(chapters.map(({ tags }) => tags.title)).toContain('A gull looks in');
    const sheet = page.url();
    await page.goto(home);
    await page.getByLabel('Finished video files').setInputFiles(file);
    await region('The file')
      .getByRole('button', { name: /Take the 5 chapters/ })
      .click();
    await dialog().getByText('Read as chapters inside the video').waitFor();
    await dialog().getByRole('button', { name: BUTTONS.addMarkers }).click();
    await page
      .locator('#chapters')
      .getByRole('checkbox', { name: /no colour/ })
      .click();
    await expect.poll(lines).toHaveLength(5);
    await page.goto(sheet);
  });

  it('keeps the markers when a better cut comes, and asks whether to move them where its length differs', async () => {
    await page.getByLabel('New file').setInputFiles(longer);
    const question = region('Another length');
    await question.getByText('The new file is 4.004 s longer').waitFor();
    await expect.poll(lines).toContain('0:05 Low water');
    await expectAccessible(question);
    await question.getByRole('button', { name: 'Move all markers' }).click();
    await expect.poll(lines).toContain('0:09 Low water');
    await expect.poll(() => question.count()).toBe(0);
    await undo();
    await question.getByRole('button', { name: 'Markers are right' }).click();
    await expect.poll(() => question.count()).toBe(0);
    await expect.poll(lines).toContain('0:05 Low water');
    const broken = write('broken.mp4', 'only words');
    await page.getByLabel('New file').setInputFiles(broken);
    const refused = page.getByRole('heading', { name: /The new file cannot be used/ });
    await refused.waitFor();
    await page.getByRole('button', { name: 'Keep the old file' }).click();
    await expect.poll(() => refused.count()).toBe(0);
    await region('The file').getByText('1:04').first().waitFor();
  });

  it('stays small on the page with five thousand markers, shows a change at once, and undoes it', async () => {
    const rows = Array.from({ length: 5000 }, (_, n) => `${(n * 0.0125).toFixed(4)},m${n},blue`);
    await page.getByLabel('Marker file').setInputFiles(write('many.csv', `seconds,name,colour\n${rows.join('\n')}\n`));
    await dialog().getByRole('button', { name: BUTTONS.replaceAll }).click();
    await region('Markers').getByText('5000', { exact: true }).waitFor();
    const size = await page.evaluate(() => ({
      rows: document.querySelectorAll('#markers input[type=checkbox]').length,
      shapes: document.querySelectorAll('[role=slider] svg *').length,
    }));
    expect(size.rows).toBeLessThan(60);
    expect(size.shapes).toBeLessThan(4000);
    await region('Markers').getByLabel('Find in names and notes').fill('m4999');
    await region('Markers').getByLabel('Time of the marker m4999').waitFor();
    await region('Markers').getByRole('button', { name: 'Remove the marker' }).click();
    await region('Markers').getByText('0 of 4999').waitFor();
    await page.getByText('all saved').waitFor();
    await undo();
    await region('Markers').getByText('1 of 5000').waitFor();
  });
});

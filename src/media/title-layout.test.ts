import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Band, drawTitle } from './title-layout';

let folder: string;
const SKY = { r: 220, g: 190, b: 160 };
beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-title-'));
  await sharp({ create: { width: 1280, height: 720, channels: 3, background: SKY } })
    .jpeg()
    .toFile(path.join(folder, 'frame.jpg'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Draws a title, and gives the means of red and of blue of a part of the picture, with its size. */
async function drawn(title: string, band: Band, part: { left: number; top: number; width: number; height: number }) {
  const to = path.join(folder, 'titled.jpg');
  await drawTitle(path.join(folder, 'frame.jpg'), to, title, band);
  const { width, height, format } = await sharp(to).metadata();
  const { channels } = await sharp(await sharp(to).extract(part).toBuffer()).stats();
  const [red, , blue] = channels.map(({ mean }) => mean);
  return { size: `${width}×${height} ${format}`, isSky: (red ?? 0) > (blue ?? 0), spread: channels[0]?.stdev ?? 0 };
}

const TOP = { left: 700, top: 20, width: 500, height: 300 };
const FOOT = { left: 20, top: 500, width: 1240, height: 200 };
const LEFT = { left: 20, top: 20, width: 460, height: 680 };

describe('a title over a picture', () => {
  it('stands on a band across the foot, or down the left side; the rest of the picture is as it was', async () => {
    expect(await drawn('Laying the keel', 'below', FOOT)).toMatchObject({ size: '1280×720 jpeg', isSky: false });
    expect(await drawn('Laying the keel', 'below', TOP)).toMatchObject({ isSky: true });
    expect(await drawn('Laying the keel', 'beside', LEFT)).toMatchObject({ isSky: false });
    expect(await drawn('Laying the keel', 'beside', TOP)).toMatchObject({ isSky: true });
  });

  it('has letters on it: light ones on the dark band', async () => {
    const { spread } = await drawn('Laying the keel, part two', 'below', FOOT);
    expect(spread).toBeGreaterThan(30);
    expect((await drawn('Laying the keel, part two', 'below', TOP)).spread).toBeLessThan(3);
  });

  it('is drawn without the emoji that the face lacks, and long ones in smaller letters', async () => {
    expect((await drawn('🛶 Größe ½ 🛶', 'below', FOOT)).isSky).toBe(false);
    expect((await drawn('plank by plank '.repeat(6), 'below', FOOT)).isSky).toBe(false);
  });

  it.each([
    ['letters that the face lacks', '船を作る'],
    ['far too much to read', 'plank by plank '.repeat(60)],
    ['nothing', '  '],
    ['nothing but an emoji', '🛶'],
    ['one word that is too long', 'x'.repeat(300)],
  ])('of %s leaves the picture as it is', async (_, title) => {
    expect(await drawn(title, 'below', FOOT)).toMatchObject({ isSky: true });
  });
});

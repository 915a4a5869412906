import { statSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { PictureRecipe, Recipe } from '@/core/renditions';
import { AAC, H264, looked, made, PICTURE, TONE } from '../../../tests/setup/made-files';
import { renditionArguments } from './arguments';
import { type HardwareEncoder, hardwareHere, worksHere } from './hardware';
import { makeRendition } from './make-rendition';

/** Stands in for hardware: an encoder that is in every ffmpeg, by another name than the one that we use. */
const WORKS: HardwareEncoder = { name: 'mpeg4', before: [], filters: [] };
/** Hardware that is not there. */
const GONE: HardwareEncoder = {
  name: 'h264_vaapi',
  before: ['-vaapi_device', '/dev/dri/renderD999'],
  filters: ['format=nv12', 'hwupload'],
};

const picture: PictureRecipe = {
  ...{ codec: 'h264', width: 160, height: 90, hardware: true },
  control: { way: 'variable', kilobits: 300, ceiling: 500, passes: 2 },
};
const recipe: Recipe = { container: 'mp4', picture, sound: 'copy' };
const clip = () => made('hardware.mp4', ...PICTURE, ...TONE, ...H264, ...AAC);

describe('graphics hardware', () => {
  it('is offered only where a trial of one second works', async () => {
    expect(await worksHere(WORKS)).toBe(true);
    expect(await worksHere(GONE)).toBe(false);
    for (const encoder of (await hardwareHere()).values()) expect(await worksHere(encoder)).toBe(true);
  });

  it('encodes in one pass where it works, and gives way to a program where it fails', async () => {
    const file = clip();
    const { facts } = await looked(file);
    const make = (to: string, encoder: HardwareEncoder, by: Recipe = recipe) =>
      makeRendition(file, facts, by, `${file}.${to}.mp4`, { hardware: new Map([['h264', encoder]]) });
    expect((await make('works', WORKS)).video.codec).toBe('mpeg4');
    const instead = await make('gone', GONE);
    expect(instead.video).toMatchObject({ codec: 'h264', width: 160, height: 90 });
    expect(statSync(`${file}.gone.mp4`).size).toBe(instead.size);
    // Quality is counted otherwise by each of them, so that it stays with the program.
    const byQuality: Recipe = {
      ...recipe,
      picture: { ...picture, control: { way: 'quality', quality: 20, ceiling: 900 } },
    };
    expect((await make('quality', WORKS, byQuality)).video.codec).toBe('h264');
  });

  it('gets its pictures as it takes them, after all that is done to them', async () => {
    const { facts } = await looked(clip());
    const args = renditionArguments({ facts, recipe, from: 'a', to: 'b', hardware: GONE });
    expect(args.indexOf('-vaapi_device')).toBeLessThan(args.indexOf('-i'));
    expect(args[args.indexOf('-vf') + 1]).toMatch(/,format=yuv420p,format=nv12,hwupload$/);
    expect(args).not.toContain('-preset');
  });
});

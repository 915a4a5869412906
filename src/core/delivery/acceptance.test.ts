import { describe, expect, it } from 'vitest';
import { fraction } from '../time';
import { codecName, containerName, reasonsNotTaken } from './acceptance';
import type { CutFacts } from './facts';
import type { SiteRules } from './site-rules';

const SITE: Pick<SiteRules, 'name' | 'file'> = {
  name: 'Testfold',
  file: {
    containers: ['mp4', 'mov'],
    videoCodecs: ['h264', 'hevc'],
    largest: 2 * 1024 ** 3,
    longest: 120,
    mostPixels: { width: 1920, height: 1080 },
  },
};
const FACTS: CutFacts = {
  container: 'mp4',
  duration: fraction(120),
  size: 2 * 1024 ** 3,
  bitRate: 1,
  video: { codec: 'h264', profile: '', width: 1920, height: 1080, rate: fraction(25), pixelFormat: '', bitRate: 1 },
  audio: undefined,
};
const reasons = (facts: Partial<CutFacts>) => reasonsNotTaken({ ...FACTS, ...facts }, SITE);

describe('why a site does not take a file', () => {
  it('is nothing for one that is exactly at every limit', () => {
    expect(reasons({})).toEqual([]);
  });

  it('names what the file is, and what the site takes', () => {
    expect(reasons({ container: 'mkv' })).toEqual(['The file is MKV; Testfold takes MP4 or MOV']);
    expect(reasons({ video: { ...FACTS.video, codec: 'prores' } })).toEqual([
      'The picture is ProRes; Testfold takes H.264 or H.265',
    ]);
    expect(reasons({ size: 2.5 * 1024 ** 3 })).toEqual(['The file has 2.5 GiB; Testfold takes 2.0 GiB']);
    expect(reasons({ video: { ...FACTS.video, width: 3840, height: 2160 } })[0]).toContain('3840×2160');
  });

  it('counts whole seconds, as sites do', () => {
    expect(reasons({ duration: fraction(120_999, 1000) })).toEqual([]);
    expect(reasons({ duration: fraction(121) })).toEqual(['The video lasts 121 s; Testfold takes 120 s']);
  });

  it('bounds pixels each way: one that stands upright is too tall', () => {
    expect(reasons({ video: { ...FACTS.video, width: 1080, height: 1920 } })).toHaveLength(1);
  });

  it('is everything at once where everything is wrong', () => {
    const video = { ...FACTS.video, codec: 'vp9', width: 3840, height: 2160 };
    expect(reasons({ container: 'webm', size: 3 * 1024 ** 3, duration: fraction(3600), video })).toHaveLength(5);
  });

  it('writes names that it does not know as they come', () => {
    expect([codecName('av1'), codecName('theora'), containerName('webm'), containerName('avi')]).toEqual([
      'AV1',
      'theora',
      'WebM',
      'avi',
    ]);
  });
});

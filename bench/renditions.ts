import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { CutFacts } from '@/core/delivery';
import {
  encoderOf,
  expectedOf,
  type MadeBefore,
  megapixelsOf,
  type Recipe,
  type RecipeControl,
} from '@/core/renditions';
import { readFacts } from '@/media/facts';
import { makeRendition } from '@/media/rendition/make-rendition';
import { rounded, SHORT, say } from './say';

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bench-'));

/** A picture that moves, with grain, as a delivery has it. */
async function cut(name: string, seconds: number, size: string): Promise<{ file: string; facts: CutFacts }> {
  const file = path.join(folder, name);
  execFileSync('ffmpeg', [
    ...[
      '-v',
      'error',
      '-nostdin',
      '-y',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=${size}:r=25:d=${seconds},noise=alls=8:allf=t`,
    ],
    ...[
      '-f',
      'lavfi',
      '-i',
      `sine=f=440:r=48000:d=${seconds}`,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-b:v',
      '12M',
    ],
    ...['-c:a', 'aac', '-b:a', '192k', '-shortest', file],
  ]);
  return { file, facts: await readFacts(file, statSync(file).size) };
}

const recipe = (control: RecipeControl, height: number): Recipe => ({
  container: 'mp4',
  picture: { codec: 'h264', width: Math.round((height * 16) / 9 / 2) * 2, height, control },
  sound: 'copy',
});

const RECIPES: Recipe[] = [
  recipe({ way: 'variable', kilobits: 2000, ceiling: 3000, passes: 1 }, SHORT ? 90 : 720),
  recipe({ way: 'variable', kilobits: 4000, ceiling: 6000, passes: 2 }, SHORT ? 90 : 720),
  recipe({ way: 'quality', quality: 20, ceiling: 20_000 }, SHORT ? 90 : 720),
];

const over = (expected: number, real: number) => rounded(expected / real, 2);

try {
  const first = await cut('first.mp4', SHORT ? 1 : 20, SHORT ? '320x180' : '1280x720');
  const second = await cut('second.mp4', SHORT ? 1 : 30, SHORT ? '320x180' : '1280x720');
  const cores = os.availableParallelism();
  for (const made of RECIPES) {
    const before: MadeBefore[] = [];
    for (const { file, facts } of [first, second]) {
      const expected = expectedOf(made, facts, { before, cores });
      const since = performance.now();
      const { size } = await makeRendition(file, facts, made, path.join(folder, `made-${Math.random()}.mp4`));
      const seconds = (performance.now() - since) / 1000;
      say({
        measure: 'what was expected of a file, over what came',
        encoder: encoderOf(made),
        learnedFrom: before.length,
        sizeExpectedOverReal: over(expected.size.likely, size),
        sizeInRange: size >= expected.size.least && size <= expected.size.most,
        timeExpectedOverReal: over(expected.making.likely, seconds),
        timeInRange: seconds >= expected.making.least && seconds <= expected.making.most,
      });
      const megapixels = megapixelsOf(made, facts);
      before.unshift({ encoder: encoderOf(made), megapixels, seconds, expected: expected.size.likely, size });
    }
  }
} finally {
  rmSync(folder, { recursive: true });
}

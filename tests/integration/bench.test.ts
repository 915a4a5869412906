import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { MEASURES } from '../../bin/bench.mjs';
import { ensureBuild } from '../../bin/setup/build.mjs';

beforeAll(() => ensureBuild(path.resolve('.')));

describe('a short form of every measurement', () => {
  it.each(MEASURES)(
    '%s runs to its end and prints lines of JSON',
    (measure) => {
      const { status, stdout, stderr } = spawnSync(process.execPath, ['--import', 'tsx', measure], {
        encoding: 'utf8',
        env: { ...process.env, BENCH_SHORT: '1' },
      });
      expect([status, stderr.split('\n').filter((line) => /Error/.test(line))]).toEqual([0, []]);
      const lines = stdout.trim().split('\n');
      expect(lines.length).toBeGreaterThan(0);
      for (const line of lines) expect(JSON.parse(line)).toHaveProperty('measure');
    },
    180_000,
  );
});

import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pathOfProgram } from '../../bin/setup/debian.mjs';

/** An ffmpeg that waits before it encodes, for as long as a test wants to look at what is being made. */
export interface GatedFfmpeg {
  /** Settings for the processes whose ffmpeg it is. */
  env: Record<string, string>;
  open(): void;
  shut(): void;
}

/** @param codec the encoder that waits, as ffmpeg calls it; everything else goes on */
export function gatedFfmpeg(codec: string): GatedFfmpeg {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-gate-'));
  const gate = path.join(folder, 'open');
  const waits = `case "$*" in *${codec}*) while [ ! -e '${gate}' ]; do sleep 0.05; done;; esac`;
  const script = `#!/bin/sh\n${waits}\nexec '${pathOfProgram('ffmpeg')}' "$@"\n`;
  writeFileSync(path.join(folder, 'ffmpeg'), script, { mode: 0o755 });
  return {
    env: { PATH: `${folder}${path.delimiter}${process.env.PATH}` },
    open: () => writeFileSync(gate, ''),
    shut: () => rmSync(gate, { force: true }),
  };
}

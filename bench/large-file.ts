import { randomBytes } from 'node:crypto';
import { closeSync, openSync, readFileSync, writeSync } from 'node:fs';
import path from 'node:path';
import { makeClip } from '../tests/setup/clips';

const MIB = 1024 * 1024;

/**
 * A real MP4 of `size` bytes in `folder`, every one of them on the disk: a short clip that is made as large as wished by a
 * `free` box after it (ISO/IEC 14496-12, 8.1.2), which players pass over.
 */
export function largeFile(folder: string, size: number, name = 'large.mp4'): string {
  const file = path.join(folder, name);
  const clip = readFileSync(makeClip({ name: 'bench.mp4', seconds: 4 }));
  const head = Buffer.alloc(16);
  head.writeUInt32BE(1, 0);
  head.write('free', 4, 'latin1');
  head.writeBigUInt64BE(BigInt(size - clip.length), 8);
  const filling = randomBytes(MIB);
  const disk = openSync(file, 'w');
  let left = size - writeSync(disk, clip) - writeSync(disk, head);
  while (left > 0) left -= writeSync(disk, filling, 0, Math.min(left, MIB));
  closeSync(disk);
  return file;
}

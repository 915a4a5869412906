import { open } from 'node:fs/promises';
import { topBoxes } from '../boxes';

const fullBox = (type: string, ...parts: Buffer[]) => box(type, Buffer.alloc(4), ...parts);

function box(type: string, ...parts: Buffer[]): Buffer {
  const content = Buffer.concat(parts);
  const head = Buffer.alloc(8);
  head.writeUInt32BE(content.length + 8, 0);
  head.write(type, 4, 'latin1');
  return Buffer.concat([head, content]);
}

/**
 * The box that says that a picture is a whole sphere, equirectangular, looking ahead (Spherical Video V2 RFC: sv3d with
 * svhd, and proj with prhd and equi without bounds).
 */
export const sphereBox = (): Buffer =>
  box(
    'sv3d',
    fullBox('svhd', Buffer.from('Kettle Drop\0', 'latin1')),
    box('proj', fullBox('prhd', Buffer.alloc(12)), fullBox('equi', Buffer.alloc(16))),
  );

interface Inner {
  start: number;
  end: number;
}

/** Boxes of one type within a part of a buffer. */
function within(bytes: Buffer, { start, end }: Inner, type: string): Inner[] {
  const found: Inner[] = [];
  for (let at = start; at + 8 <= end; ) {
    const size = bytes.readUInt32BE(at);
    if (size < 8 || at + size > end) break;
    if (bytes.toString('latin1', at + 4, at + 8) === type) found.push({ start: at, end: at + size });
    at += size;
  }
  return found;
}

const inside = ({ start, end }: Inner, head = 8): Inner => ({ start: start + head, end });

/** The boxes from the track of the picture down to the description of its samples (ISO/IEC 14496-12, 8.1 to 8.5). */
function wayToSampleEntry(moov: Buffer): Inner[] | undefined {
  const root = { start: 0, end: moov.length };
  for (const trak of within(moov, inside(root), 'trak')) {
    const [mdia] = within(moov, inside(trak), 'mdia');
    const [hdlr] = mdia ? within(moov, inside(mdia), 'hdlr') : [];
    if (!mdia || !hdlr || moov.toString('latin1', hdlr.start + 16, hdlr.start + 20) !== 'vide') continue;
    const way = [root, trak, mdia];
    for (const type of ['minf', 'stbl', 'stsd']) {
      const [next] = within(moov, inside(way.at(-1) as Inner), type);
      if (!next) return undefined;
      way.push(next);
    }
    // After version, flags and the count of entries comes the first entry.
    const entry = (way.at(-1) as Inner).start + 16;
    return [...way, { start: entry, end: entry + moov.readUInt32BE(entry) }];
  }
  return undefined;
}

/** An index with the box of a sphere in the description of the picture's samples; nothing else in it changes. */
export function withSphere(moov: Buffer): Buffer {
  const way = wayToSampleEntry(moov);
  if (!way) throw new Error('the index describes no picture');
  const added = sphereBox();
  const at = (way.at(-1) as Inner).end;
  const changed = Buffer.concat([moov.subarray(0, at), added, moov.subarray(at)]);
  for (const { start } of way) changed.writeUInt32BE(changed.readUInt32BE(start) + added.length, start);
  return changed;
}

/**
 * Writes into an MP4 or MOV file whose index stands at its end that its picture is a whole sphere.
 * @throws Error where the index stands elsewhere: what it points to would move
 */
export async function writeSphere(path: string): Promise<void> {
  const boxes = await topBoxes(path);
  const index = boxes.find(({ type }) => type === 'moov');
  if (!index || boxes.at(-1) !== index) throw new Error('the index is not the last box');
  const file = await open(path, 'r+');
  try {
    const moov = Buffer.alloc(index.end - index.start);
    await file.read(moov, 0, moov.length, index.start);
    const changed = withSphere(moov);
    await file.write(changed, 0, changed.length, index.start);
  } finally {
    await file.close();
  }
}

import { type FileHandle, open } from 'node:fs/promises';

/** The box type, and where it stands: bytes from the start of the file. */
export interface Box {
  type: string;
  start: number;
  /** The first byte after the box, as its header says; it may lie beyond the file's end. */
  end: number;
}

const MOST_BOXES = 10_000;

/** The boxes at the top level of an MP4 or MOV file (ISO/IEC 14496-12, 4.2: size, type, large size). */
export async function topBoxes(path: string): Promise<Box[]> {
  const file = await open(path, 'r');
  try {
    const { size } = await file.stat();
    const boxes: Box[] = [];
    let start = 0;
    while (start + 8 <= size && boxes.length < MOST_BOXES) {
      const box = await boxAt(file, start, size);
      if (!box) break;
      boxes.push(box);
      start = box.end;
    }
    return boxes;
  } finally {
    await file.close();
  }
}

async function boxAt(file: FileHandle, start: number, size: number): Promise<Box | undefined> {
  const header = Buffer.alloc(16);
  await file.read(header, 0, 16, start);
  const type = header.toString('latin1', 4, 8);
  const short = header.readUInt32BE(0);
  // Size 1: the real one follows in 64 bits. Size 0: the box goes on to the end of the file.
  const length = short === 1 ? Number(header.readBigUInt64BE(8)) : short === 0 ? size - start : short;
  return length < 8 ? undefined : { type, start, end: start + length };
}

/** How many bytes are missing at the end of an MP4 or MOV file; 0 where it is whole. */
export function missingBytes(boxes: readonly Box[], size: number): number {
  const last = boxes.at(-1);
  return last ? Math.max(0, last.end - size) : 0;
}

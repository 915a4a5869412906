import type { Readable } from 'node:stream';
import { cutById } from '@/store/cuts';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { DeskError, found } from '../desk-error';

/** A cut that has arrived, to be played: its size in bytes, its container, and any part of it as a stream. */
export async function openCut(id: string): Promise<{
  size: number;
  container: string;
  open: (start: number, end: number) => Readable;
}> {
  const cut = found(await cutById(database(), id), 'file');
  if (cut.state === 'arriving') throw new DeskError('not now', 'This file has not arrived yet.');
  const open = (start: number, end: number) => files().open(cut.fileKey, start, end);
  return { size: cut.size, container: cut.facts?.container ?? '', open };
}

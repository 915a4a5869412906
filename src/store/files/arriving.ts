import { createWriteStream } from 'node:fs';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FileStore } from '@tus/file-store';
import { arrivingFolder } from './folder';

const WRITE_BUFFER_BYTES = 1024 * 1024;

/** Where cuts come in by tus: the file of a transfer is the cut's own, so nothing is copied when it is whole. */
export class ArrivingStore extends FileStore {
  constructor() {
    super({ directory: arrivingFolder() });
  }

  /** Writes from `offset` on, in larger pieces than the store it stands on, and says so where the disk is full. */
  override async write(bytes: Readable, id: string, offset: number): Promise<number> {
    const target = createWriteStream(path.join(this.directory, id), {
      flags: 'r+',
      start: offset,
      highWaterMark: WRITE_BUFFER_BYTES,
    });
    try {
      await pipeline(bytes, target);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOSPC') {
        throw { status_code: 507, body: 'The disk is full. Make room; the transfer goes on from where it stands.' };
      }
      throw error;
    }
    return offset + target.bytesWritten;
  }
}

import { createWriteStream } from 'node:fs';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FileStore } from '@tus/file-store';
import type { Upload } from '@tus/server';
import { arrivingFolder } from './folder';

const WRITE_BUFFER_BYTES = 1024 * 1024;

/** What the protocol's server answers where this machine cannot keep what comes. Paths and the system's words stay here. */
function machineError(error: unknown): unknown {
  const code = String((error as { code?: unknown } | undefined)?.code);
  if (code === 'ENOSPC' || code === 'EDQUOT') {
    return { status_code: 507, body: 'The disk is full. Make room; the transfer goes on from where it stands.' };
  }
  if (['EROFS', 'EACCES', 'EPERM', 'EIO'].includes(code)) {
    return {
      status_code: 507,
      body: 'The folder for files cannot be written. Make it writable; the transfer goes on.',
    };
  }
  return error;
}

/** Where cuts come in by tus: the file of a transfer is the cut's own, so nothing is copied when it is whole. */
export class ArrivingStore extends FileStore {
  constructor() {
    super({ directory: arrivingFolder() });
  }

  override async create(upload: Upload): Promise<Upload> {
    try {
      return await super.create(upload);
    } catch (error) {
      throw machineError(error);
    }
  }

  /** Writes from `offset` on, in larger pieces than the store it stands on. */
  override async write(bytes: Readable, id: string, offset: number): Promise<number> {
    const target = createWriteStream(path.join(this.directory, id), {
      flags: 'r+',
      start: offset,
      highWaterMark: WRITE_BUFFER_BYTES,
    });
    try {
      await pipeline(bytes, target);
    } catch (error) {
      throw machineError(error);
    }
    return offset + target.bytesWritten;
  }
}

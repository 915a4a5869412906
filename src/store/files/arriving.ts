import { createWriteStream } from 'node:fs';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FileStore } from '@tus/file-store';
import type { Upload } from '@tus/server';
import { arrivingFolder } from './folder';
import { RunningDigest } from './running-digest';

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
  /** Digests of transfers that have come to this process from their first byte on, each up to where it stands. */
  private readonly digests = new Map<string, { hash: RunningDigest; upTo: number }>();

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
    const running = offset === 0 ? { hash: new RunningDigest(), upTo: 0 } : this.digests.get(id);
    // Taken out while bytes come: a transfer that breaks here has read more than it has written.
    this.digests.delete(id);
    const hash = running?.upTo === offset ? running.hash : undefined;
    if (!hash) running?.hash.drop();
    if (hash) bytes.on('data', (chunk: Buffer) => hash.update(chunk));
    try {
      await pipeline(bytes, target);
    } catch (error) {
      hash?.drop();
      throw machineError(error);
    }
    const upTo = offset + target.bytesWritten;
    if (hash) this.digests.set(id, { hash, upTo });
    return upTo;
  }

  /** The SHA-256 of a transfer that is over, where every byte of it came to this process; asked for once. */
  async digestOf(id: string, size: number): Promise<string | undefined> {
    const running = this.digests.get(id);
    this.digests.delete(id);
    if (running?.upTo === size) return running.hash.digest();
    running?.hash.drop();
    return undefined;
  }
}

import type { Readable } from 'node:stream';

/** What was put: bytes and SHA-256 in hexadecimal. */
export interface PutFile {
  size: number;
  digest: string;
}

/** Where files are kept. A key is made by us, never from a name that came from outside. */
export interface FileStore {
  /** Keeps a stream under a key, whole or not at all. */
  put(key: string, bytes: Readable): Promise<PutFile>;
  /**
   * Keeps a file of this machine under a key without copying its bytes where the disk can do that: as a clone, or as a second
   * name of the same file. The SHA-256 is returned where the bytes had to be read.
   */
  adopt(key: string, path: string): Promise<{ digest: string | undefined }>;
  /** The bytes from `start` up to and including `end`. */
  open(key: string, start?: number, end?: number): Readable;
  size(key: string): Promise<number>;
  remove(key: string): Promise<void>;
  /** Takes away what was begun to be kept and never became whole, some time ago. */
  removeHalf(): Promise<void>;
  /** A path on this machine's disk that ffmpeg can read. */
  localPath(key: string): string;
  /** Bytes that can still be kept. */
  free(): Promise<number>;
}

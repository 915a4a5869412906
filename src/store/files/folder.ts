import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, mkdirSync } from 'node:fs';
import { mkdir, rename, rm, stat, statfs } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { settings } from '../settings';
import type { FileStore } from './files';

const KEY = /^[a-z]+(?:\/[A-Za-z0-9_-]+(?:\.[a-z0-9]{1,8})?)+$/;

/** The file store in a folder of this machine. */
export function folderStore(root: string): FileStore {
  mkdirSync(root, { recursive: true });
  const at = (key: string) => {
    if (!KEY.test(key)) throw new Error(`"${key}" is no file key`);
    return path.join(/* turbopackIgnore: true */ root, key);
  };
  return {
    async put(key, bytes) {
      const target = at(key);
      await mkdir(path.dirname(target), { recursive: true });
      const partial = `${target}.part`;
      const hash = createHash('sha256');
      let size = 0;
      const meter = new Transform({
        transform(chunk: Buffer, _, done) {
          hash.update(chunk);
          size += chunk.length;
          done(null, chunk);
        },
      });
      try {
        await pipeline(bytes, meter, createWriteStream(partial));
        await rename(partial, target);
      } catch (error) {
        await rm(partial, { force: true });
        throw error;
      }
      return { size, digest: hash.digest('hex') };
    },
    open: (key, start, end) => createReadStream(at(key), { start, end, highWaterMark: 512 * 1024 }),
    size: async (key) => (await stat(at(key))).size,
    remove: (key) => rm(at(key), { force: true }),
    localPath: at,
    async free() {
      const disk = await statfs(root);
      return disk.bavail * disk.bsize;
    },
  };
}

let store: FileStore | undefined;

/** The file store of this process. */
export function files(): FileStore {
  store ??= folderStore(path.join(/* turbopackIgnore: true */ settings().home, 'files'));
  return store;
}

/** The folder into which cuts arrive; a cut's file key is `cuts/` and the transfer's id. */
export function arrivingFolder(): string {
  const folder = path.join(/* turbopackIgnore: true */ settings().home, 'files', 'cuts');
  mkdirSync(folder, { recursive: true });
  return folder;
}

import { createHash } from 'node:crypto';
import { constants, createReadStream, createWriteStream, mkdirSync } from 'node:fs';
import { copyFile, link, mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import path, { dirname } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { newId } from '../ids';
import { settings } from '../settings';
import type { FileStore } from './files';

const KEY = /^[a-z]+(?:\/[A-Za-z0-9_-]+(?:\.[a-z0-9]{1,8})?)+$/;

const HALF = '.part';
const HALF_KEPT_MILLISECONDS = 24 * 3600 * 1000;

/** The file store in a folder of this machine. */
export function folderStore(root: string): FileStore {
  mkdirSync(root, { recursive: true });
  const at = (key: string) => {
    if (!KEY.test(key)) throw new Error(`"${key}" is no file key`);
    return path.join(/* turbopackIgnore: true */ root, key);
  };
  const put: FileStore['put'] = async (key, bytes) => {
    const target = at(key);
    await mkdir(dirname(target), { recursive: true });
    // A name of its own: two that keep the same key at once write two files, and the last whole one stays.
    const partial = `${target}.${newId()}${HALF}`;
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
  };
  return {
    put,
    async adopt(key, path) {
      const target = at(key);
      await mkdir(dirname(target), { recursive: true });
      const taken = await copyFile(path, target, constants.COPYFILE_FICLONE_FORCE)
        .catch(() => link(path, target))
        .then(
          () => true,
          () => false,
        );
      return taken ? { digest: undefined } : put(key, createReadStream(path));
    },
    open: (key, start, end) => createReadStream(at(key), { start, end, highWaterMark: 512 * 1024 }),
    size: async (key) => (await stat(at(key))).size,
    remove: (key) => rm(at(key), { force: true }),
    async removeHalf() {
      const before = Date.now() - HALF_KEPT_MILLISECONDS;
      for (const name of await readdir(root, { recursive: true })) {
        const file = path.join(root, name);
        if (!name.endsWith(HALF)) continue;
        const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: Date.now() }));
        if (mtimeMs < before) await rm(file, { force: true });
      }
    },
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

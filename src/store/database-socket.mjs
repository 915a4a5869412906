import { lstatSync, mkdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/**
 * The socket of the private MariaDB that belongs to a port, in a folder that its owner alone may enter. It stands in the
 * temporary folder: a socket's path has at most 107 bytes, so it cannot stand below a home that lies deep.
 * Plain JavaScript, as the start command needs it before any package is there.
 * @param {number} port the database's port on loopback
 * @returns {string} an absolute path
 * @throws where the folder belongs to somebody else or is open to others
 */
export function databaseSocket(port) {
  const { uid } = os.userInfo();
  const folder = path.join(os.tmpdir(), `kettle-${uid}-${port}`);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const found = lstatSync(folder);
  if (!found.isDirectory() || found.uid !== uid || (found.mode & 0o077) !== 0) {
    throw new Error(`${folder} is not yours alone; remove it or set KETTLE_DB_PORT to another port.`);
  }
  return path.join(folder, 'db.sock');
}

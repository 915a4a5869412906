import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';

/** Loaded before a process begins: while the file that KETTLE_FULL_DISK names is there, no byte can be written. */
const flag = process.env.KETTLE_FULL_DISK ?? '';
const full = () =>
  Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC', errno: -28, syscall: 'write' });

const refusing = (write) =>
  function refused(fd, ...rest) {
    const done = rest.at(-1);
    if (fs.existsSync(flag) && typeof done === 'function') return process.nextTick(done, full());
    return write(fd, ...rest);
  };

const real = fs.createWriteStream;
const { open, close, write, writev } = fs;
fs.createWriteStream = (path, options) => {
  const given = typeof options === 'string' ? { encoding: options } : options;
  return real(path, { ...given, fs: { open, close, write: refusing(write), writev: refusing(writev) } });
};
syncBuiltinESMExports();

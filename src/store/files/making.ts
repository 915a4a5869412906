import { mkdir, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { settings } from '../settings';

const all = () => path.join(/* turbopackIgnore: true */ settings().home, 'making');
/** A folder is named by what is made in it, and by who makes it. */
const idOf = (name: string) => name.slice(0, 36);

/** An empty folder for what is made of a file on the way; what a killed worker left of it before is gone. */
export async function emptyMakingFolder(id: string): Promise<string> {
  await mkdir(all(), { recursive: true });
  await removeMaking((other) => other === id);
  const folder = path.join(all(), `${id}-${process.pid}-${Date.now()}`);
  await mkdir(folder);
  return folder;
}

/** Takes away what was left on the way of files that nobody makes any more. @param isLeft by the file's id */
export async function removeMaking(isLeft: (id: string) => boolean): Promise<void> {
  for (const name of await readdir(all()).catch(() => [])) {
    if (isLeft(idOf(name))) await rm(path.join(all(), name), { recursive: true, force: true });
  }
}

/** The ids of files that something was left of, or that are being made. */
export async function idsInMaking(): Promise<string[]> {
  return (await readdir(all()).catch(() => [])).map(idOf);
}

import { stat } from 'node:fs/promises';
import path from 'node:path';
import { files } from '@/store/files/folder';
import { DeskError } from '../desk-error';
import { announceCut, noteCutArrived } from './bring-cut';
import { fingerprintOfFile } from './file-proof';

/** How a file on this machine comes in. */
export interface LocalFile {
  /** What it is called; its own name where not given. */
  fileName?: string;
  /** The video that it is a better file for; a new one where not given. */
  videoId?: string;
  /** Whether it is taken though the same file is here already. */
  anyway?: boolean;
}

/**
 * Brings a file of this machine in; a worker reads it next. The ids of its video and cut are returned.
 * @throws DeskError where it is no file, is empty, has no room, or is here already
 */
export async function bringLocalFile(
  file: string,
  { fileName = path.basename(file), videoId, anyway = false }: LocalFile = {},
): Promise<{ videoId: string; cutId: string }> {
  const { size, isFile } = await stat(file).then((found) => ({ size: found.size, isFile: found.isFile() }));
  if (!isFile) throw new DeskError('not taken', `“${file}” is a folder. Name a video file.`);
  const fingerprint = await fingerprintOfFile(file, size);
  const made = await announceCut({ fileName, size, fingerprint, videoId, anyway }, anyway);
  if ('known' in made) {
    const { title, videoId: there } = made.known;
    const what = `This file is here already, as “${title}” (video ${there})`;
    throw new DeskError('not taken', `${what}. Send that one, or say --again to make a second video of it.`);
  }
  const { cut } = made;
  const { digest } = await files().adopt(cut.fileKey, file);
  await noteCutArrived(cut.id, size, digest);
  return { videoId: cut.videoId, cutId: cut.id };
}

import type { Readable } from 'node:stream';
import { soundFactsOf } from '@/media/sound-facts';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { makeSound } from '@/store/record/sounds';
import { videoById } from '@/store/record/videos';
import { DeskError, found } from '../desk-error';
import { bounded } from '../video/bounded';

/** An hour of uncompressed sound; more takes the place of nothing. */
const LARGEST_SOUND = 700_000_000;

/** Takes in a sound that may take the place of a part of a video's own. Its id is returned. */
export async function bringSound(videoId: string, fileName: string, bytes: Readable): Promise<{ id: string }> {
  found(await videoById(database(), videoId), 'video');
  const fileKey = `sounds/${newId()}`;
  const { size } = await files().put(fileKey, bounded(bytes, LARGEST_SOUND, 'sound'));
  try {
    const facts = await soundFactsOf(files().localPath(fileKey)).catch(() => undefined);
    if (!facts) throw new DeskError('not taken', 'There is no sound in this file. Use a WAV, FLAC, MP3 or AAC file.');
    const { duration } = facts;
    return { id: await makeSound(database(), { videoId, fileKey, fileName: fileName.slice(0, 255), duration, size }) };
  } catch (error) {
    // Such as where the video was deleted meanwhile.
    await files().remove(fileKey);
    throw error;
  }
}

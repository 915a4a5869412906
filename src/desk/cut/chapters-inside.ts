import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { writeFfmetadata } from '@/core/markers';
import { fraction } from '@/core/time';
import { writeChaptersInside } from '@/media/chapters';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { keepRendition, renditionWith } from '@/store/files/renditions';
import { settings } from '@/store/settings';
import { pathOfCut } from '../cut-file';
import { DeskError } from '../desk-error';
import { recordOf } from '../drop/record';

/** What can hold chapters and is written by copying, by container. */
const ENDINGS: Record<string, string> = { mp4: 'mp4', mov: 'mov', mkv: 'mkv', webm: 'webm' };

/**
 * The cut in use with its chapters inside, as a rendition: nothing is encoded again, and the same chapters are written
 * once.
 * @throws DeskError where there are no chapters yet, or the container holds none
 */
export async function cutWithChapters(
  videoId: string,
): Promise<{ fileName: string; size: number; open: () => Readable }> {
  const db = database();
  const { cut, chapters } = await recordOf(db, videoId);
  if (!cut?.facts) throw new DeskError('not now', 'The file has to have arrived first.');
  if (chapters.length === 0) throw new DeskError('not now', 'There are no chapters yet. Choose markers for viewers.');
  const ending = ENDINGS[cut.facts.container];
  if (!ending) throw new DeskError('not taken', 'Chapters can stand inside MP4, MOV, MKV and WebM files only.');
  const markers = chapters.map(({ time, title }) => ({
    time,
    name: title,
    note: '',
    colour: '',
    on: 'timeline' as const,
    hidden: false,
    length: fraction(0),
  }));
  const digest = createHash('sha256')
    .update(writeFfmetadata({ rate: undefined, markers, end: cut.facts.duration }))
    .digest('hex');
  const name = `chapters ${digest.slice(0, 48)}`;
  const earlier = await renditionWith(db, cut.id, name);
  const fileName = `${path.parse(cut.fileName).name} with chapters.${ending}`;
  if (earlier) return { fileName, size: earlier.size, open: () => files().open(earlier.fileKey) };
  const folder = await mkdtemp(path.join(settings().home, 'chapters-'));
  try {
    const target = path.join(folder, `cut.${ending}`);
    await writeChaptersInside(pathOfCut(cut), target, {
      rate: undefined,
      markers,
      end: cut.facts.duration,
    });
    const fileKey = `renditions/${cut.id}-${digest.slice(0, 32)}`;
    const put = await files().put(fileKey, createReadStream(target));
    const { size } = await keepRendition(db, { cutId: cut.id, settings: name, fileKey, ...put });
    return { fileName, size, open: () => files().open(fileKey) };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

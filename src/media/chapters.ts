import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { array, number, object, string } from 'yup';
import { type MarkerFile, type MarkersToWrite, marker, writeFfmetadata } from '@/core/markers';
import { fraction, minus, times } from '@/core/time';
import { FROM_OUTSIDE, runProgram } from './program';

const probeShape = object({
  chapters: array(
    object({
      time_base: string().required(),
      start: number().integer().required(),
      end: number().integer().required(),
      tags: object({ title: string() }).default(undefined),
    }),
  ).default([]),
});

/** Reads the chapters inside an MP4, MOV, MKV or WebM file with ffprobe. @throws ProgramError */
export async function readChaptersInside(file: string): Promise<MarkerFile> {
  const said = await runProgram('ffprobe', ['-v', 'error', '-show_chapters', '-of', 'json', ...FROM_OUTSIDE, file]);
  const { chapters } = await probeShape.validate(JSON.parse(said));
  const markers = chapters.map(({ time_base, start, end, tags }) => {
    const [num = 1, den = 1] = time_base.split('/').map(Number);
    const unit = fraction(num, den);
    const time = times(fraction(start), unit);
    return marker({ time, length: minus(times(fraction(end), unit), time), name: tags?.title ?? '' });
  });
  return { format: 'inside the file', rate: undefined, startFrame: undefined, markers, findings: [] };
}

/**
 * Copies a file with these chapters inside, in the place of those it had; nothing is encoded again.
 * @param from path of the file that is read
 * @param to path of the copy
 * @param file the chapters, and where the last of them ends
 * @throws ProgramError
 */
export async function writeChaptersInside(
  from: string,
  to: string,
  file: Pick<MarkersToWrite, 'rate' | 'markers' | 'end'>,
): Promise<void> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-chapters-'));
  try {
    const metadata = path.join(folder, 'chapters.ffmeta');
    await writeFile(metadata, writeFfmetadata(file));
    await runProgram('ffmpeg', [
      ...['-v', 'error', '-nostdin', '-y', ...FROM_OUTSIDE, '-i', from, '-f', 'ffmetadata', '-i', metadata],
      ...['-map', '0', '-map_chapters', '1', '-map_metadata', '0', '-c', 'copy', to],
    ]);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

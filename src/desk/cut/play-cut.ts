import { mkdtemp, readFile, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { compare, type Fraction, frameAtTime, rate, timeOfFrame } from '@/core/time';
import { takeFrame } from '@/media/frames';
import { ProgramError } from '@/media/program';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { cutById } from '@/store/record/cuts';
import { pathOfCut } from '../cut-file';
import { DeskError, found } from '../desk-error';

/** A cut that has arrived, to be played: its size in bytes, its container, and any part of it as a stream. */
export async function openCut(id: string): Promise<{
  size: number;
  container: string;
  open: (start: number, end: number) => Readable;
}> {
  const cut = found(await cutById(database(), id), 'file');
  if (cut.state === 'arriving') throw new DeskError('not now', 'This file has not arrived yet.');
  pathOfCut(cut);
  const open = (start: number, end: number) => files().open(cut.fileKey, start, end);
  return { size: cut.size, container: cut.facts?.container ?? '', open };
}

/** The frame of a cut that is on screen at a moment, as a JPEG. @throws DeskError where there is none */
export async function frameOfCut(id: string, at: Fraction): Promise<Buffer> {
  const cut = found(await cutById(database(), id), 'file');
  if (!cut.facts) throw new DeskError('not now', 'This file has not been read yet.');
  if (compare(at, cut.facts.duration) > 0) throw new DeskError('not found', 'The file ends before that moment.');
  const { num, den } = cut.facts.video.rate;
  const exact = rate(num, den);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'kettle-frame-'));
  try {
    const to = path.join(folder, 'frame.jpg');
    await takeFrame(pathOfCut(cut), to, timeOfFrame(frameAtTime(at, exact), exact), exact);
    // One picture has a few hundred kilobytes.
    return await readFile(to);
  } catch (error) {
    if (!(error instanceof ProgramError)) throw error;
    throw new DeskError('not found', 'There is no picture at that moment.');
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

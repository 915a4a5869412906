import { stat } from 'node:fs/promises';
import type { CutFacts, CutMeasures } from '@/core/delivery';
import { DeskError } from '@/desk/desk-error';
import { readFacts, UnusableCut } from '@/media/facts';
import { measureCut } from '@/media/pass/measure-cut';
import { ProgramError } from '@/media/program';

/** What a file is and what one pass over it finds. @throws DeskError where it cannot be played */
export async function lookedOver(file: string): Promise<{ facts: CutFacts; measures: CutMeasures }> {
  const { size } = await stat(file).catch(() => {
    throw new DeskError('not found', `There is no file ${file}.`);
  });
  try {
    const facts = await readFacts(file, size);
    return { facts, measures: await measureCut(file, facts) };
  } catch (error) {
    if (error instanceof UnusableCut) throw new DeskError('not taken', error.message);
    if (!(error instanceof ProgramError)) throw error;
    throw new DeskError('not taken', `${file} cannot be played: ${error.said}. Export it again.`);
  }
}

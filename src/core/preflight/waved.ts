import type { Remedies } from '../renditions';
import type { Finding, WavedThrough } from './finding';
import { isPutRight } from './remedy';

/** The findings in a file, what a person said is meant, and which file it is. */
export interface FoundInFile {
  fileFindings: readonly Finding[];
  wavedThrough: readonly WavedThrough[];
  cut: { id: string } | undefined;
  remedies: Remedies;
}

/** Why a person said that what a rule finds in this file is meant; '' without a reason, undefined where nobody did. */
export function reasonFor(
  { wavedThrough, cut }: Pick<FoundInFile, 'wavedThrough' | 'cut'>,
  rule: string,
): string | undefined {
  return wavedThrough.find((waved) => waved.rule === rule && waved.cutId === cut?.id)?.reason;
}

/** Warnings that nobody has said are meant, and that are not put right. */
export function openWarnings(found: FoundInFile): Finding[] {
  return found.fileFindings.filter((finding) => {
    const { level, rule } = finding;
    return level === 'warns' && reasonFor(found, rule) === undefined && !isPutRight(finding, found.remedies);
  });
}

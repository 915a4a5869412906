import type { Finding, WavedThrough } from './finding';

/** The findings in a file, what a person said is meant, and which file it is. */
export interface FoundInFile {
  fileFindings: readonly Finding[];
  wavedThrough: readonly WavedThrough[];
  cut: { id: string } | undefined;
}

/** Why a person said that what a rule finds in this file is meant; '' without a reason, undefined where nobody did. */
export function reasonFor({ wavedThrough, cut }: Omit<FoundInFile, 'fileFindings'>, rule: string): string | undefined {
  return wavedThrough.find((waved) => waved.rule === rule && waved.cutId === cut?.id)?.reason;
}

/** Warnings that nobody has said are meant. */
export function openWarnings(found: FoundInFile): Finding[] {
  return found.fileFindings.filter(({ level, rule }) => level === 'warns' && reasonFor(found, rule) === undefined);
}

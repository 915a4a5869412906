import { constants } from 'node:fs';
import { access, copyFile } from 'node:fs/promises';
import path from 'node:path';
import { binarySize, containerName, reasonsNotTaken, spanName } from '@/core/delivery';
import { demandOf, recipeWords } from '@/core/renditions';
import { DeskError } from '@/desk/desk-error';
import { ProgramError } from '@/media/program';
import { makeRendition } from '@/media/rendition/make-rendition';
import { type FileAsked, remediesNamed, settingsNamed } from './named/file-asked';
import { lookedOver } from './named/looked-over';
import { siteNamed } from './named/site';

interface RenderOptions extends FileAsked {
  site: string;
  output: string;
}

const BAR = 30;

/** One line that is written over itself, on a terminal alone. */
function progressBar(): (fraction: number) => void {
  const since = Date.now();
  return (fraction) => {
    if (!process.stderr.isTTY) return;
    const full = Math.round(fraction * BAR);
    const seconds = ((Date.now() - since) / 1000) * (1 / Math.max(fraction, 0.001) - 1);
    const left = fraction > 0.01 && fraction < 1 ? `, ${spanName(seconds)} left` : '';
    process.stderr.write(`\r[${'█'.repeat(full)}${'·'.repeat(BAR - full)}] ${Math.floor(fraction * 100)} %${left}   `);
  };
}

/** Makes the file that a site would get. @throws DeskError where none can be made, or the output is there already */
export async function render(file: string, options: RenderOptions): Promise<void> {
  const site = siteNamed(options.site);
  const set = await settingsNamed(options.settings);
  const output = path.resolve(options.output);
  const isThere = await access(output).then(
    () => true,
    () => false,
  );
  if (isThere) throw new DeskError('not now', `${options.output} is there already. Choose another name.`);
  const { facts, measures } = await lookedOver(file);
  const remedies = remediesNamed(options.remedy, facts, measures);
  const demand = demandOf({ facts, measures }, { site, set, remedies });
  if ('refused' in demand) throw new DeskError('not taken', `${demand.refused}. ${demand.nearest}.`);
  const ending = path.extname(output).slice(1).toLowerCase();
  const recipe = demand.recipes.find((each) => each?.container === ending) ?? demand.recipes[0];
  const container = recipe?.container ?? facts.container;
  if (ending !== container) {
    throw new DeskError(
      'not taken',
      `The file will be ${containerName(container)}. Let its name end in .${container}.`,
    );
  }
  if (!recipe) {
    await copyFile(file, output, constants.COPYFILE_EXCL | constants.COPYFILE_FICLONE);
    console.error(`${site.name} takes the file as it is; ${options.output} is a copy of it.`);
    return;
  }
  const bar = progressBar();
  const stopping = new AbortController();
  process.once('SIGINT', () => stopping.abort(new DeskError('not now', 'Stopped; nothing was kept.')));
  const made = await makeRendition(file, facts, recipe, output, { onProgress: bar, signal: stopping.signal }).catch(
    (error: unknown) => {
      if (error instanceof ProgramError) throw new DeskError('not taken', `It could not be made: ${error.said}.`);
      throw error;
    },
  );
  bar(1);
  if (process.stderr.isTTY) process.stderr.write('\n');
  console.error(`${options.output}: ${recipeWords(recipe)}, ${binarySize(made.size)}`);
  const [reason] = reasonsNotTaken(made, site);
  if (reason) throw new DeskError('not taken', `${reason}. Choose settings with fewer bits.`);
}

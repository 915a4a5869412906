import { readFile } from 'node:fs/promises';
import { array, number, object, string } from 'yup';
import { fitToSite, searchFindings } from '@/core/fitting';
import { fraction, fromDecimal } from '@/core/time';
import { DeskError } from '@/desk/desk-error';
import { siteNamed } from './site-named';

const words = () => string().default('');
const inputShape = object({
  title: words(),
  summary: words(),
  template: words(),
  links: array(object({ label: words(), url: string().required() })).default([]),
  tags: array(string().required()).default([]),
  chapters: array(object({ seconds: number().min(0).required(), title: words() })).default([]),
  durationSeconds: number().positive(),
});

const exact = (seconds: number) => fromDecimal(seconds.toFixed(6)) ?? fraction(0);

/** Prints the words of a JSON file as a site would get them; exit 1 while something keeps them from being sent. */
export async function fit(options: { json: string; site: string }): Promise<void> {
  const site = siteNamed(options.site);
  const file = await readFile(options.json, 'utf8');
  let data: unknown;
  try {
    data = JSON.parse(file);
  } catch (error) {
    throw new DeskError('not taken', `${options.json} is no JSON: ${(error as Error).message}`);
  }
  const input = await inputShape.validate(data);
  const chapters = input.chapters.map(({ seconds, title }) => {
    return { markerId: undefined, time: exact(seconds), title, repair: undefined };
  });
  const duration = input.durationSeconds === undefined ? undefined : exact(input.durationSeconds);
  const { title, text, tags, leftOut, findings } = fitToSite({ ...input, chapters, duration }, site);
  if (findings.length > 0) process.exitCode = 1;
  const search = searchFindings({ title: input.title, text, tags: input.tags });
  const all = [...findings.map(({ what }) => what), ...search];
  process.stdout.write(`${JSON.stringify({ title, text, tags, leftOut, findings: all }, null, 2)}\n`);
}

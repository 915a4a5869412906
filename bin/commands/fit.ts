import { readFile } from 'node:fs/promises';
import { array, number, object, string } from 'yup';
import { fitToSite, searchFindings } from '@/core/fitting';
import { fraction, fromDecimal } from '@/core/time';
import { DeskError } from '@/desk/desk-error';
import { siteNamed } from './named/site';

const words = () => string().default('');
/** A key that there is not is refused by its name: a slip of the pen would leave something out unsaid. */
const unknown = ({ path, unknown: keys }: { path?: string; unknown?: string }) =>
  `${path ? `${path} has` : 'There are'} unknown keys: ${keys}. kettle fit --help shows those that there are.`;

const inputShape = object({
  title: words(),
  titlePattern: string(),
  summary: words(),
  template: words(),
  links: array(object({ label: words(), url: string().required() }).noUnknown(unknown)).default([]),
  tags: array(string().required()).default([]),
  chapters: array(object({ seconds: number().min(0).required(), title: words() }).noUnknown(unknown)).default([]),
  durationSeconds: number().positive(),
  channel: words(),
  series: words(),
  episode: words(),
  date: words(),
})
  .noUnknown(unknown)
  .typeError('The file holds no JSON object.');

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
  const input = await inputShape.validate(data, { stripUnknown: false });
  const { channel, series, episode, date } = input;
  const names = { channel, series, episode, date };
  const chapters = input.chapters.map(({ seconds, title }) => {
    return { markerId: undefined, time: exact(seconds), title, repair: undefined };
  });
  const duration = input.durationSeconds === undefined ? undefined : exact(input.durationSeconds);
  const { title, text, tags, leftOut, findings } = fitToSite({ ...input, names, chapters, duration }, site);
  if (findings.length > 0) process.exitCode = 1;
  const search = searchFindings({ title: input.title, text, tags: input.tags });
  const all = [...findings.map(({ what }) => what), ...search];
  process.stdout.write(`${JSON.stringify({ title, text, tags, leftOut, findings: all }, null, 2)}\n`);
}

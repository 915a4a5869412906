import os from 'node:os';
import { binarySize, spanName } from '@/core/delivery';
import { expectedOf, planRenditions, type Range, recipeWords } from '@/core/renditions';
import { type FileAsked, remediesNamed, settingsNamed } from './named/file-asked';
import { lookedOver } from './named/looked-over';
import { siteNamed } from './named/site';

interface PlanOptions extends FileAsked {
  site: string[];
  json?: boolean;
}

/** Lines that people have, in Mbit/s (common practice, no source); what is sent takes between so and so long. */
const LINES = { fast: 20, slow: 8 };

const say = (text: string) => process.stdout.write(`${text}\n`);
const between = ({ least, most }: Range, name: (value: number) => string) =>
  name(least) === name(most) ? name(most) : `${name(least)} to ${name(most)}`;

/** Prints which files sites would get; the exit code is 1 where no file can be made that a site takes. */
export async function printPlan(file: string, options: PlanOptions): Promise<void> {
  const sites = options.site.map(siteNamed);
  const set = await settingsNamed(options.settings);
  const { facts, measures } = await lookedOver(file);
  const remedies = remediesNamed(options.remedy, facts, measures);
  const plan = planRenditions(
    { facts, measures },
    sites.map((site) => ({ key: site.name, site, set, remedies })),
  );
  const cores = os.availableParallelism();
  const renditions = plan.renditions.map(({ recipe, work, for: goes }) => {
    const { size, making } = expectedOf(recipe, facts, { cores });
    const seconds = (bytes: number, megabits: number) => (bytes * 8) / (megabits * 1e6);
    const sending = {
      least: seconds(size.least, LINES.fast),
      likely: seconds(size.likely, (LINES.fast + LINES.slow) / 2),
      most: seconds(size.most, LINES.slow),
    };
    return { sites: goes, work, is: recipeWords(recipe), recipe: recipe ?? null, bytes: size, making, sending };
  });
  const refused = [...plan.refused].map(([site, { refused: why, nearest }]) => ({ site, why, nearest }));
  if (refused.length > 0) process.exitCode = 1;
  if (options.json) {
    const data = renditions.map(({ sites: goes, ...rest }) => ({
      sites: goes.map(({ key, why }) => ({ site: key, why })),
      ...rest,
    }));
    say(JSON.stringify({ renditions: data, refused }, undefined, 2));
    return;
  }
  for (const { sites: goes, work, is, bytes, making, sending } of renditions) {
    say(`${goes.map(({ key }) => key).join(', ')}: ${is}`);
    const made = work === 'as it is' ? '' : ` · ${between(making, spanName)} to make`;
    say(`  ${between(bytes, binarySize)}${made} · ${between(sending, spanName)} to upload at 8 to 20 Mbit/s`);
    if (work !== 'as it is') for (const why of new Set(goes.flatMap((each) => each.why))) say(`  ${why}`);
  }
  for (const { site, why, nearest } of refused) say(`▲ ${site}: ${why}. ${nearest}.`);
}

import { Command } from 'commander';
import { ValidationError } from 'yup';
import { DeskError } from '@/desk/desk-error';

const kettle = new Command('kettle').description('Takes finished videos to hosting sites and sees them through');

kettle
  .command('send')
  .description('Bring a finished file and send it to a channel')
  .argument('<file>', 'the finished cut')
  .requiredOption('--channel <name>', 'the channel that it goes to')
  .option('--title <title>', 'the title; made from the file name where not given')
  .option('--description <text>', 'the description')
  .option('--tags <list>', 'tags with commas between them')
  .option('--markers <file>', 'a marker file: CMX 3600 EDL or WebVTT chapters')
  .option('--chapters <colour>', 'the colour of the markers that viewers see as chapters')
  .option('--privacy <who>', 'everyone, link or private', 'private')
  .option('--watch', 'stay until it is live, held or has a snag')
  .action(async (file, options) => (await import('./send')).send(file, options));

kettle
  .command('status')
  .description('Where every drop stands')
  .option('--json', 'as JSON')
  .action(async (options) => (await import('./status')).status(options));

kettle
  .command('migrate')
  .description('Bring the database to its newest form')
  .action(async () => (await import('./migrate')).migrateDatabase());

kettle
  .command('demo')
  .description('Make the demo once')
  .option('--draw-only', 'only draw its videos; needs neither database nor sites')
  .action(async (options) => {
    const { drawDemo, makeDemo } = await import('../../demo/make');
    await (options.drawOnly ? drawDemo() : makeDemo());
  });

try {
  await kettle.parseAsync();
} catch (error) {
  process.exitCode = 1;
  console.error(`kettle: ${explain(error)}`);
} finally {
  const { closeDatabase } = await import('@/store/database');
  await closeDatabase();
}

function explain(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (error instanceof DeskError || error instanceof ValidationError) return error.message;
  if ((error as NodeJS.ErrnoException).code === 'ECONNREFUSED')
    return 'Kettle Drop is not running. Start it with npm start.';
  if ((error as NodeJS.ErrnoException).code === 'ENOENT')
    return `There is no file ${(error as NodeJS.ErrnoException).path}.`;
  return error.message;
}

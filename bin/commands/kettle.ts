import { Command } from 'commander';
import { DeskError } from '@/desk/desk-error';

const kettle = new Command('kettle').description('Takes finished videos to hosting sites and sees them through');

const many = (value: string, all: string[] = []) => [...all, value];

kettle
  .command('send')
  .description('Bring a finished file and send it to a channel')
  .argument('<file>', 'the finished cut')
  .option('--channel <name>', 'a channel that it goes to, or site/name; may be given several times', many)
  .option('--series <name>', 'its series; recognised from the file name where not given')
  .option('--title <title>', 'the title; made from the file name where not given')
  .option('--description <text>', 'the lines about this video, which the series’ template stands around')
  .option('--tags <list>', 'tags with commas between them, beside those of the series and the channel')
  .option('--for-children <answer>', 'yes or no: the law asks, and some sites do not take it unanswered')
  .option('--product <gtin>', 'a catalogue product; may be given several times', many)
  .option('--markers <file>', 'a marker file of any format that is read')
  .option('--chapters <colour>', 'the colour of the markers that viewers see as chapters')
  .option('--privacy <who>', 'everyone, link or private; as the series or the channel has it where not given')
  .option('--explain', 'say for each channel what it gets, and which layer gave each value')
  .option('--watch', 'stay until it is live, held or has a snag')
  .action(async (file, options) => (await import('./send')).send(file, options));

kettle
  .command('status')
  .description('Where every drop stands')
  .option('--json', 'as JSON')
  .action(async (options) => (await import('./status')).status(options));

/** The options that every marker command takes. */
const readsMarkers = (command: Command) =>
  command
    .option('--rate <rate>', 'the time line’s rate where the file does not tell it: 25, 29.97df, 24000/1001')
    .option('--start <timecode>', 'the timecode that the time line starts at')
    .option('--colour <colour>', 'only markers of this colour; may be given several times', many)
    .option('--in <timecode>', 'where the exported range starts')
    .option('--out <timecode>', 'where the exported range ends');

readsMarkers(kettle.command('markers').description('Print the markers of a file as JSON').argument('<file>')).action(
  async (file, options) => (await import('./markers')).printMarkers(file, options),
);

readsMarkers(kettle.command('convert').description('Write the markers of a file in another format').argument('<file>'))
  .requiredOption('--to <format>', 'edl, otio, vtt, ffmetadata, matroska, json, csv or text')
  .option('--output <file>', 'where to; standard output where not given')
  .action(async (file, options) => (await import('./markers')).convert(file, options));

readsMarkers(kettle.command('chapters').description('Print the chapter lines that viewers will see').argument('<file>'))
  .requiredOption('--site <site>', 'the site whose rules hold')
  .requiredOption('--duration <seconds>', 'the length of the exported file')
  .option('--repair', 'repair what can be repaired')
  .action(async (file, options) => (await import('./markers')).chapters(file, options));

kettle
  .command('fit')
  .description('Print the words of a JSON file as a site would get them')
  .requiredOption('--json <file>', 'title, summary, template, links, tags, chapters and durationSeconds')
  .requiredOption('--site <site>', 'the site whose limits hold')
  .action(async (options) => (await import('./fit')).fit(options));

kettle
  .command('channels')
  .description('Every channel with its site and account')
  .option('--json', 'as JSON')
  .action(async (options) => (await import('./channels')).channels(options));

kettle
  .command('connect')
  .description('Open the address at which an account of a site is connected')
  .argument('<site>', 'lanternfold, fieldgate, pipwire or stallmarket')
  .action(async (site) => (await import('./channels')).connect(site));

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
  // The marker commands never open the database, and are not to load it only to close it.
  if ('kettleDatabase' in globalThis) await (await import('@/store/database')).closeDatabase();
}

function explain(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (error instanceof DeskError || error.name === 'ValidationError') return error.message;
  if ((error as NodeJS.ErrnoException).code === 'ECONNREFUSED')
    return 'Kettle Drop is not running. Start it with npm start.';
  if ((error as NodeJS.ErrnoException).code === 'ENOENT')
    return `There is no file ${(error as NodeJS.ErrnoException).path}.`;
  return error.message;
}

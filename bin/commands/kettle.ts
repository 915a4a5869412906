import { existsSync } from 'node:fs';
import path from 'node:path';
import { Command } from 'commander';
import { DeskError } from '@/desk/desk-error';

const kettle = new Command('kettle').description('Takes finished videos to hosting sites and sees them through');

/** The shape of the file that `fit` takes; the README has the same. */
const FIT_SHAPE = `
The file is a JSON object; each of these may be left out:
  title            text
  titlePattern     Mustache around the title, such as "{{series}} {{episode}}: {{title}}"
  summary          text
  template         Mustache around the summary
  links            [{"label": text, "url": address}]
  tags             [text]
  chapters         [{"seconds": number, "title": text}]
  durationSeconds  number
  channel, series, episode, date   text, for the names in templates
`;

const many = (value: string, all: string[] = []) => [...all, value];

/** Before a command that needs the database: the folder of the Kettle Drop that runs is used. */
const withDatabase = async () => (await import('./running-home')).takeRunningHome();

const VIDEO = 'a video: its id, its link or its exact title';

kettle
  .command('send')
  .description('Bring a finished file and send it, or send a video that is here: anew, or what has changed of it')
  .argument('<what>', 'a file, or a video: its id, its link or its exact title')
  .option('--channel <name>', 'all that it goes to: a channel, or site/name; may be given several times', many)
  .option('--series <name>', 'its series; recognised from the file name where not given')
  .option('--title <title>', 'the title; made from the file name where not given')
  .option('--description <text>', 'the lines about this video, which the series’ template stands around')
  .option('--tags <list>', 'tags with commas between them, beside those of the series and the channel')
  .option('--for-children <answer>', 'yes or no: the law asks, and some sites do not take it unanswered')
  .option('--product <gtin>', 'a catalogue product; may be given several times', many)
  .option('--markers <file>', 'a marker file of any format that is read')
  .option('--chapters <colours>', 'the colours of the markers that viewers see as chapters; none without it')
  .option('--privacy <who>', 'everyone, link or private; as the series or the channel has it where not given')
  .option('--again', 'make a second video of a file that is here already')
  .option('--explain', 'say for each channel what it gets, and which layer gave each value')
  .option('--watch', 'stay until it is live, held or has a snag')
  .hook('preAction', withDatabase)
  .action(async (what, options) => (await import('./send')).send(what, options));

kettle
  .command('status')
  .description('Where every drop stands')
  .option('--json', 'as JSON')
  .hook('preAction', withDatabase)
  .action(async (options) => (await import('./status')).status(options));

kettle
  .command('show')
  .description('Print a video: what is set, what each channel gets, where it stands, what can be done')
  .argument('<video>', VIDEO)
  .option('--json', 'as JSON')
  .hook('preAction', withDatabase)
  .action(async (video, options) => (await import('./show')).show(video, options));

kettle
  .command('set')
  .description('Set fields of a video, or of it on one channel alone; an empty value leaves a field to the layers')
  .argument('<video>', VIDEO)
  .argument('<field=value...>', 'such as title=Keel privacy=link tags=keel,oak forChildren=no chapters=green')
  .option('--channel <name>', 'for this channel alone; may be given several times', many)
  .hook('preAction', withDatabase)
  .action(async (video, pairs, options) => (await import('./set')).set(video, pairs, options));

for (const [name, action, says] of [
  ['open', 'open', 'Open a video that is ready to everyone'],
  ['close', 'close', 'Take a video from everybody’s sight: private, at once'],
  ['again', 'try again', 'Try again what has a snag'],
  ['accept', 'accept', 'Accept what a site’s check found, or what it shows'],
  ['remove', 'remove', 'Remove a video from its sites'],
] as const) {
  kettle
    .command(name)
    .description(says)
    .argument('<video>', VIDEO)
    .option(
      '--channel <name>',
      'only there; may be given several times. Everywhere where it can be done if not given',
      many,
    )
    .option('--watch', 'stay until it is done')
    .hook('preAction', withDatabase)
    .action(async (video, options) => (await import('./act')).act(action, video, options));
}

kettle
  .command('delete')
  .description('Delete a video with its file, words and markers')
  .argument('<video>', VIDEO)
  .option('--from-sites', 'remove it from its sites first')
  .hook('preAction', withDatabase)
  .action(async (video, options) => (await import('./act')).deleteVideo(video, options));

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
  .requiredOption('--json <file>', 'the words, as below')
  .requiredOption('--site <site>', 'the site whose limits hold')
  .addHelpText('after', FIT_SHAPE)
  .action(async (options) => (await import('./fit')).fit(options));

kettle
  .command('channels')
  .description('Every channel with its site and account')
  .option('--json', 'as JSON')
  .hook('preAction', withDatabase)
  .action(async (options) => (await import('./channels')).channels(options));

kettle
  .command('connect')
  .description('Open the address at which an account of a site is connected')
  .argument('<site>', 'lanternfold, fieldgate, pipwire or stallmarket')
  .hook('preAction', withDatabase)
  .action(async (site) => (await import('./channels')).connect(site));

kettle
  .command('jobs')
  .description('The background work that was set aside, with what it said')
  .option('--again', 'have all of it tried again')
  .option('--json', 'as JSON')
  .hook('preAction', withDatabase)
  .action(async (options) => (await import('./jobs')).jobs(options));

kettle
  .command('renew-key')
  .description('Renew the key that permissions are sealed with; Kettle Drop may run meanwhile')
  .hook('preAction', withDatabase)
  .action(async () => (await import('./renew-key')).renew());

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

// A reader that has seen enough, such as head, is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
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
  const { code, path: at = '', syscall } = error as NodeJS.ErrnoException;
  if (code === 'ECONNREFUSED') return 'Kettle Drop is not running. Start it with npm start.';
  if (code === 'EISDIR') return `${at || 'What you named'} is a folder. Name a file.`;
  if (code === 'ENOTDIR') return `${at} is no file: part of its path is no folder.`;
  if (code === 'EACCES') return `${at} may not be read or written.`;
  if (code !== 'ENOENT') return error.message;
  const folder = path.dirname(path.resolve(at));
  return syscall === 'open' && !existsSync(folder) ? `There is no folder ${folder}.` : `There is no file ${at}.`;
}

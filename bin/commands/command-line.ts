import { existsSync } from 'node:fs';
import path from 'node:path';
import { Command, CommanderError } from 'commander';
import { MANAGER } from '@/core/actor';
import { DeskError } from '@/desk/desk-error';

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

/** The options that every marker command takes. */
const readsMarkers = (command: Command) =>
  command
    .option('--rate <rate>', 'frame rate, if the file does not say it: 25, 29.97df, 24000/1001')
    .option('--start <timecode>', 'timecode at which the time line starts')
    .option('--colour <colour>', 'only markers of this colour; give it several times for several', many)
    .option('--in <timecode>', 'in point of the export')
    .option('--out <timecode>', 'out point of the export');

/** The options of the commands that plan or make a file. */
const asksForFile = (command: Command) =>
  command
    .option(
      '--settings <set>',
      'talk, screen, action, trailer, upright, square, or settings as JSON; without it, as it is where it can be',
    )
    .option(
      '--remedy <remedy>',
      'start, end, loudness (or loudness=-16), index, sphere or convert; give it several times',
      many,
    );

/** The command line as its words are read: each command with its options, and what it does. */
function commands(): Command {
  const kettle = new Command('kettle').description(
    'Takes finished videos to hosting sites and stays with them until people can watch',
  );
  // It ends by what was asked for, and never the process that it is part of.
  kettle.exitOverride();

  kettle
    .command('send')
    .description('Add a file and send it, or send a video that is here already, or its changes')
    .argument('<what>', 'a file, or a video: its id, its link or its exact title')
    .option(
      '--channel <name>',
      'where it goes: a channel’s name, or site/name; give it several times for several',
      many,
    )
    .option('--series <name>', 'its series; without it, from the file name')
    .option('--title <title>', 'the title; without it, from the file name')
    .option('--description <text>', 'two or three lines about this video; the series’ template adds the rest')
    .option('--tags <list>', 'more tags, with commas between them')
    .option('--for-children <answer>', 'yes or no: required by law on some sites')
    .option('--product <gtin>', 'a product by its GTIN; give it several times for several', many)
    .option('--markers <file>', 'the edit’s marker file')
    .option('--chapters <colours>', 'make chapters from markers of these colours; without it, none')
    .option('--privacy <who>', 'everyone, link or private; without it, as the series or channel says')
    .option('--again', 'also if the same file is here already')
    .option('--explain', 'print what each channel gets, and where each value comes from')
    .option('--watch', 'wait until it is live, ready to open, or needs you')
    .hook('preAction', withDatabase)
    .action(async (what, options) => (await import('./send')).send(what, options));

  kettle
    .command('status')
    .description('Where every video stands on every channel')
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (options) => (await import('./status')).status(options));

  kettle
    .command('show')
    .description('Show a video: its fields, what each channel gets, where it stands, what you can do')
    .argument('<video>', VIDEO)
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (video, options) => (await import('./show')).show(video, options));

  kettle
    .command('parts')
    .description('Where each part of a video stands: what is wanted, asked, given and shown, and what failed')
    .argument('<video>', VIDEO)
    .option('--channel <name>', 'only this channel; give it several times for several', many)
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (video, options) => (await import('./parts')).parts(video, options));

  kettle
    .command('set')
    .description('Set fields of a video, or for one channel alone; an empty value resets a field to its default')
    .argument('<video>', VIDEO)
    .argument('<field=value...>', 'such as title=Keel privacy=link tags=keel,oak forChildren=no chapters=green')
    .option('--channel <name>', 'for this channel alone; give it several times for several', many)
    .hook('preAction', withDatabase)
    .action(async (video, pairs, options) => (await import('./set')).set(video, pairs, options));

  kettle
    .command('open')
    .description(
      'Open a video that is ready, after a few seconds to stop it; or say when it opens, with --at or --together',
    )
    .argument('<video>', VIDEO)
    .option(
      '--channel <name>',
      'only there; may be given several times. Everywhere where it can be done if not given',
      many,
    )
    .option('--at <time>', 'at this time: "fri 9:00", "in 2 h", "28 nov 18:30"')
    .option('--zone <zone>', 'the time zone that it is said in; without it, this machine’s')
    .option('--together', 'on all channels together: none before all are checked')
    .option('--now', 'at once, without the seconds in which it can be stopped')
    .option('--first-showing', 'as a first showing at the time of --at, where a site has such')
    .option('--watch', 'stay until it is done')
    .hook('preAction', withDatabase)
    .action(async (video, options) => (await import('./release')).open(video, options));

  kettle
    .command('release')
    .description('When and how a video opens on each channel')
    .argument('<video>', VIDEO)
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (video, options) => (await import('./release')).release(video, options));

  for (const [name, action, says] of [
    ['stop', 'not yet', 'Stop what is to open in a few seconds'],
    ['close', 'close', 'Make a video private at once; until its site confirms it, it says to whom it is open'],
    ['replace', 'new file', 'Send a better file in the place of a live video'],
    ['again', 'try again', 'Try again where something went wrong'],
    ['accept', 'accept', 'Agree to a rights match, or keep what the site shows'],
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

  readsMarkers(kettle.command('markers').description('Print the markers of a file as JSON').argument('<file>')).action(
    async (file, options) => (await import('./markers')).printMarkers(file, options),
  );

  readsMarkers(
    kettle.command('convert').description('Write the markers of a file in another format').argument('<file>'),
  )
    .requiredOption('--to <format>', 'edl, otio, vtt, ffmetadata, matroska, json, csv or text')
    .option('--output <file>', 'file to write; without it, standard output')
    .action(async (file, options) => (await import('./markers')).convert(file, options));

  readsMarkers(
    kettle.command('chapters').description('Print the chapter lines that viewers will see').argument('<file>'),
  )
    .requiredOption('--site <site>', 'the site whose rules hold')
    .requiredOption('--duration <seconds>', 'the length of the exported file')
    .option('--repair', 'apply all repairs')
    .action(async (file, options) => (await import('./markers')).chapters(file, options));

  kettle
    .command('preflight')
    .description('Look a file over before it goes anywhere: what it is, and what is wrong with it')
    .argument('<file>')
    .option('--site <site>', 'hold it against a site’s rules, too; give it several times for several', many)
    .option('--json', 'as JSON')
    .action(async (file, options) => (await import('./preflight')).printPreflight(file, options));

  asksForFile(
    kettle
      .command('plan')
      .description('Print which files sites would get, why, how large they are and how long they take')
      .argument('<file>')
      .requiredOption('--site <site>', 'a site that it goes to; give it several times for several', many),
  )
    .option('--json', 'as JSON')
    .action(async (file, options) => (await import('./plan')).printPlan(file, options));

  asksForFile(
    kettle
      .command('render')
      .description('Make the file that a site would get')
      .argument('<file>')
      .requiredOption('--site <site>', 'the site that it is for')
      .requiredOption('--output <file>', 'the file to write; it must not be there yet'),
  ).action(async (file, options) => (await import('./render')).render(file, options));

  kettle
    .command('fit')
    .description('Print the words of a JSON file as a site would get them')
    .requiredOption('--json <file>', 'the words, as below')
    .requiredOption('--site <site>', 'the site whose limits hold')
    .addHelpText('after', FIT_SHAPE)
    .action(async (options) => (await import('./fit')).fit(options));

  kettle
    .command('when')
    .description('Print which instant a typed time means, and the date that sites print under a video then')
    .argument('<text>', 'such as "fri 9:00", "in 2 h" or "28 nov 18:30"')
    .option('--zone <zone>', 'the time zone that it is said in, such as Europe/Berlin; without it, this machine’s')
    .option('--order <order>', 'dmy or mdy: what comes first in a date such as 12/04')
    .option('--now <instant>', 'count from another instant than now, such as 2026-11-26T10:00:00Z')
    .option('--site <site>', 'only this site’s date; give it several times for several', many)
    .option('--json', 'as JSON')
    .action(async (text, options) => (await import('./when')).when(text, options));

  kettle
    .command('channels')
    .description('List the channels with their sites and accounts')
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (options) => (await import('./channels')).channels(options));

  kettle
    .command('connect')
    .description('Connect an account of a site, in the browser')
    .argument('<site>', 'lanternfold, fieldgate, pipwire or stallmarket')
    .hook('preAction', withDatabase)
    .action(async (site) => (await import('./channels')).connect(site));

  kettle
    .command('acts')
    .description('What was done with many videos at once: how far it is; pause it, let it go on, stop it or undo it')
    .argument('[what]', 'pause, go, stop or undo')
    .argument('[id]', 'the act')
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (what, id, options) => (await import('./acts')).acts(what, id, options));

  kettle
    .command('jobs')
    .description('Background work that failed, and why')
    .option('--again', 'try all of it again')
    .option('--json', 'as JSON')
    .hook('preAction', withDatabase)
    .action(async (options) => (await import('./jobs')).jobs(options));

  kettle
    .command('renew-key')
    .description('Renew the key that your sites’ permissions are encrypted with; Kettle Drop can keep running')
    .hook('preAction', withDatabase)
    .action(async () => (await import('./renew-key')).renew());

  kettle
    .command('migrate')
    .description('Update the database')
    .action(async () => (await import('./migrate')).migrateDatabase());

  kettle
    .command('demo')
    .description('Make the demo once')
    .option('--draw-only', 'only draw the videos; needs no database and no sites')
    .action(async (options) => {
      const { drawDemo, makeDemo } = await import('../../demo/make');
      // It stands for what a person has done on the pages.
      const { actAs } = await import('@/store/actor');
      await (options.drawOnly ? drawDemo() : actAs({ who: MANAGER }, makeDemo));
    });
  return kettle;
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

/**
 * Does what a command line asks for. What it gives goes to standard output, what it says beside to standard error; where it
 * did not do what was asked, the exit code of the process is 1.
 * @param args the words after the program's name
 */
export async function runKettle(args: readonly string[]): Promise<void> {
  try {
    await commands().parseAsync(args, { from: 'user' });
  } catch (error) {
    // What is wrong with the words themselves has been said, and help was asked for.
    if (error instanceof CommanderError) {
      process.exitCode = error.exitCode;
      return;
    }
    process.exitCode = 1;
    console.error(`kettle: ${explain(error)}`);
  }
}

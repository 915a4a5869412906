import { readFile, writeFile } from 'node:fs/promises';
import { chapterFindings, chapterLines, chaptersFromMarkers, NO_CHOICE, repairChapters } from '@/core/chapters';
import { MARKER_WRITERS, type MarkerFile, readMarkerFile, type WrittenFormat } from '@/core/markers';
import {
  chapterText,
  compare,
  type Fraction,
  frameAtTime,
  frameOfTimecode,
  fromDecimal,
  minus,
  parseRate,
  rate as rateOf,
  timeOfFrame,
  toDecimal,
  ZERO,
} from '@/core/time';
import { DeskError } from '@/desk/desk-error';
import { siteNamed } from './named/site';

/** What the marker commands share. */
export interface MarkerOptions {
  rate?: string;
  start?: string;
  colour?: string[];
  in?: string;
  out?: string;
}

const MEDIA = /\.(mp4|m4v|mov|mkv|webm)$/i;
const say = (text: string) => process.stdout.write(text.endsWith('\n') ? text : `${text}\n`);

async function read(file: string, options: MarkerOptions): Promise<MarkerFile> {
  const given = options.rate === undefined ? undefined : parseRate(options.rate);
  if (options.rate !== undefined && !given) {
    throw new DeskError('not taken', `“${options.rate}” is no rate; give one such as 25, 29.97df or 24000/1001.`);
  }
  // Looked at even where the file tells its own start: what was typed and is none is said.
  if (options.start !== undefined) frameOfTimecode(options.start, given ?? FINEST);
  const found = MEDIA.test(file)
    ? await (await import('@/media/chapters')).readChaptersInside(file)
    : readMarkerFile(await readFile(file), { rate: given, start: options.start }, undefined, file);
  const at = found.rate ?? given;
  if (options.start !== undefined && !at) {
    throw new DeskError('not taken', '--start is a timecode, so the rate has to be given with --rate.');
  }
  const start = found.startFrame ?? (options.start && at ? frameOfTimecode(options.start, at) : undefined);
  if (found.markers.length === 0) throw new DeskError('not found', `No marker was found in ${file}.`);
  return { ...found, rate: at, startFrame: start };
}

/** The rate with the most frames a second that is met, for a timecode whose rate is not known yet. */
const FINEST = rateOf(60);

/** The exported range that --in and --out name, in exact seconds from the time line's start. */
function rangeOf(
  { rate: at, startFrame }: MarkerFile,
  options: MarkerOptions,
): { from: Fraction; to: Fraction | undefined } {
  const time = (timecode: string | undefined): Fraction | undefined => {
    if (timecode === undefined) return undefined;
    if (!at) throw new DeskError('not taken', 'In and out are timecodes, so the rate has to be given with --rate.');
    return minus(timeOfFrame(frameOfTimecode(timecode, at), at), timeOfFrame(startFrame ?? 0, at));
  };
  return { from: time(options.in) ?? ZERO, to: time(options.out) };
}

const coloursOf = ({ markers }: MarkerFile, options: MarkerOptions): string[] =>
  options.colour?.map((colour) => colour.toLowerCase()) ?? [...new Set(markers.map((marker) => marker.colour))];

/** Prints the markers of a file as JSON. */
export async function printMarkers(file: string, options: MarkerOptions): Promise<void> {
  const { rate: at, startFrame, markers, findings } = await read(file, options);
  const frames = (time: Fraction) => (at ? frameAtTime(time, at) : null);
  const print = {
    rate: at ?? null,
    startFrame: startFrame ?? null,
    markers: markers.map(({ time, length, name, note, colour, on, hidden }) => ({
      frame: frames(time),
      seconds: toDecimal(time, 6),
      name,
      note,
      colour,
      lengthFrames: frames(length),
      on,
      hidden,
    })),
    findings,
  };
  say(JSON.stringify(print, null, 2));
}

/** Writes the markers of a file in another format. */
export async function convert(file: string, options: MarkerOptions & { to: string; output?: string }): Promise<void> {
  const known = Object.hasOwn(MARKER_WRITERS, options.to);
  if (!known)
    throw new DeskError(
      'not taken',
      `“${options.to}” cannot be written; it can be ${Object.keys(MARKER_WRITERS).join(', ')}.`,
    );
  const write = MARKER_WRITERS[options.to as WrittenFormat];
  const found = await read(file, options);
  const wanted = new Set(coloursOf(found, options));
  const { from, to } = rangeOf(found, options);
  const markers = found.markers
    .filter(({ colour, time }) => wanted.has(colour) && compare(time, from) >= 0 && (!to || compare(time, to) < 0))
    .map((marker) => ({ ...marker, time: minus(marker.time, from) }))
    .sort((a, b) => compare(a.time, b.time));
  report(found);
  if (markers.length === 0) throw new DeskError('not found', 'No marker lies there with these colours.');
  const end = to && minus(to, from);
  const text = write({ rate: found.rate, startFrame: options.in ? 0 : found.startFrame, markers, end });
  if (options.output) await writeFile(options.output, text);
  else say(text);
}

function report({ findings }: MarkerFile): void {
  for (const { at, what, done } of findings) console.error(`${at}: ${what}; ${done}`);
}

/** Prints the chapter lines that a site's viewers will see; exit 1 while one of its rules is broken. */
export async function chapters(
  file: string,
  options: MarkerOptions & { site: string; duration: string; repair?: boolean },
): Promise<void> {
  const profile = siteNamed(options.site);
  const duration = fromDecimal(options.duration);
  if (!duration || duration.num <= 0)
    throw new DeskError('not taken', `“${options.duration}” is no length in seconds.`);
  if (!profile.chapters) throw new DeskError('not taken', `${profile.name} has no chapters.`);
  const found = await read(file, options);
  const { from, to } = rangeOf(found, options);
  const sources = found.markers.map((marker, index) => {
    return { ...marker, id: String(index), kind: marker.hidden ? ('note' as const) : ('by choice' as const) };
  });
  const choice = { ...NO_CHOICE, colours: coloursOf(found, options) };
  const { chapters: made, leftOut } = chaptersFromMarkers(sources, choice, { from, to });
  const { rules } = profile.chapters;
  const shown = options.repair ? repairChapters(made, rules, duration) : made;
  report(found);
  for (const { marker, why } of leftOut) console.error(`“${marker.name}” ${why}; left out`);
  for (const chapter of shown) if (chapter.repair) console.error(`“${chapter.title}”: ${chapter.repair}`);
  const lines = chapterLines(shown, duration);
  if (lines.length > 0) say(chapterText(lines));
  const findings = chapterFindings(shown, rules, duration);
  for (const { index, what } of findings)
    console.error(index === undefined ? what : `“${shown[index]?.title}”: ${what}`);
  if (findings.length > 0 || shown.length === 0) process.exitCode = 1;
  if (shown.length === 0) console.error('No marker became a chapter.');
}

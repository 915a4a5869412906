import {
  canDropFrames,
  frameAtTime,
  frameOfTimecode,
  nominal,
  plus,
  type Rate,
  rateName,
  rate as rateOf,
  TimecodeError,
  timecodeOfFrame,
  timeOfFrame,
  ZERO,
} from '../time';
import {
  EntryReader,
  type MarkerFile,
  MarkerFileError,
  type MarkersToWrite,
  marker,
  type ReadMarker,
  type ReadOptions,
  spanEnd,
} from './marker';
import { hourBefore } from './start';

const TIMECODE = String.raw`\d{2,3}:\d{2}:\d{2}[:;.,]\d{2,3}`;
const EVENT = new RegExp(
  String.raw`^(\d{1,6})\s+(\S+)\s+(\S+)\s+(\S+)(?:\s+(\d+))?\s+(${TIMECODE})\s+(${TIMECODE})\s+(${TIMECODE})\s+(${TIMECODE})\s*$`,
);
const LOCATOR = /^\*\s*LOC\s*:\s*(\S+)(?:\s+(\S+)(?:\s+(.*))?)?$/i;
const FCM = /^FCM\s*:\s*(.+)$/i;

/**
 * Reads a CMX 3600 edit decision list: its events' record times give where the time line starts, its locator comments
 * (`* LOC: timecode COLOUR name`) the markers. Without any locator, each event that carries a clip name is a marker.
 * @param options the time line's rate, since a list does not tell it; an `FCM` line decides between drop-frame and not. The
 *   timecode that the time line starts at, where it is not the first event's
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readEdl(text: string, options: ReadOptions = {}): MarkerFile {
  const guessed = options.rate ? undefined : guessedRate(text);
  const rate = options.rate ?? guessed ?? FALLBACK;
  let running: Rate = rate;
  let start: number | undefined;
  const markers: { frame: number; marker: ReadMarker; rate: Rate }[] = [];
  const named: { frame: number; name: string; length: number; rate: Rate }[] = [];
  const file: MarkerFile = { format: 'edl', rate, startFrame: undefined, markers: [], findings: [] };
  let events = 0;
  // Comments belong to the event before them; those of one that cannot be read go with it.
  let readable = true;

  const entries = new EntryReader(file);
  const readLine = (line: string, at: number) => {
    if (line === '') return;
    const fcm = FCM.exec(line);
    if (fcm) {
      running = { ...rate, dropFrame: !/^NON/i.test(fcm[1] ?? '') && canDropFrames(rate) };
      return;
    }
    const locator = LOCATOR.exec(line);
    if (locator) {
      const [, timecode = '', colour = '', name = ''] = locator;
      const frame = frameOn(timecode, running, at);
      markers.push({
        frame,
        rate: running,
        marker: marker({ time: ZERO, name: name.trim(), colour: colour.toLowerCase() }),
      });
      return;
    }
    const event = EVENT.exec(line);
    if (event) {
      events += 1;
      readable = false;
      const [recordIn, recordOut] = [frameOn(event[8] ?? '', running, at), frameOn(event[9] ?? '', running, at)];
      if (recordOut < recordIn) throw new MarkerFileError('the record-out time lies before the record-in time', at);
      start = start === undefined ? recordIn : Math.min(start, recordIn);
      named.push({ frame: recordIn, name: '', length: recordOut - recordIn, rate: running });
      readable = true;
      return;
    }
    if (/^\d{1,6}\s+\S+\s+\S+\s+\S+/.test(line) && /\d:\d/.test(line)) {
      readable = false;
      throw new MarkerFileError('an event should end in four timecodes: source in and out, record in and out', at);
    }
    const clip = /^\*\s*FROM CLIP NAME\s*:\s*(.+)$/i.exec(line);
    const last = named.at(-1);
    if (clip?.[1] && last && readable) last.name = clip[1].trim();
  };
  text.split(/\r\n|\r|\n/).forEach((raw, index) => {
    entries.entry(index + 1, () => readLine(raw.trim(), index + 1));
  });

  if (events === 0 && markers.length === 0) {
    entries.done();
    throw new MarkerFileError('no event and no locator was found, so this is not an edit decision list', 0);
  }
  const told = options.start === undefined ? undefined : frameOn(options.start, running, 0);
  const earliest = markers.reduce((least, { frame }) => Math.min(least, frame), Number.MAX_SAFE_INTEGER);
  const first = told ?? start ?? hourBefore(earliest, running);
  if (guessed) {
    file.findings.push({ at: 'file', what: 'the list does not say its rate', done: `counted at ${rateName(guessed)}` });
  }
  file.rate = running;
  file.startFrame = first;
  if (markers.length === 0) {
    const clips = named.filter((event) => event.name !== '');
    if (clips.length > 0) {
      file.findings.push({ at: 'file', what: 'no locators in the list', done: 'took the events’ clip names instead' });
    }
    file.markers = clips.map(({ frame, length, name, rate: at }) =>
      marker({ time: timeOfFrame(frame - first, at), length: timeOfFrame(length, at), name, on: 'clip' }),
    );
    return entries.done();
  }
  for (const { frame, marker: found, rate: at } of markers) {
    if (frame < first) {
      const what = `“${found.name}” lies before the start of the time line`;
      file.findings.push({ at: 'file', what, done: 'kept it there, where it becomes no chapter' });
    }
    file.markers.push({ ...found, time: timeOfFrame(frame - first, at) });
  }
  return entries.done();
}

const FALLBACK = rateOf(25);

/** The rate that a list must have by the frame numbers in it, where nobody tells: an FCM line for drop-frame means 29.97. */
function guessedRate(text: string): Rate {
  if (/^\s*FCM\s*:\s*DROP/im.test(text)) return rateOf(30000, 1001, true);
  const frames = [...text.matchAll(/\d{2}:\d{2}:\d{2}[:;.,](\d{2,3})/g)].map((match) => Number(match[1]));
  // A number that no rate has is a slip of one line, and says nothing of the others.
  const most = frames.filter((frame) => frame < 60).reduce((a, b) => Math.max(a, b), 0);
  return most < 25 ? FALLBACK : most < 30 ? rateOf(30) : most < 50 ? rateOf(50) : rateOf(60);
}

/** Writes markers as the locators of one event that spans them all. Names go on one line; a time goes to its frame. */
export function writeEdl(file: MarkersToWrite): string {
  const at = file.rate ?? FALLBACK;
  const start = file.startFrame ?? nominal(at) * 3600;
  const code = (time: ReadMarker['time']) => timecodeOfFrame(start + frameAtTime(time, at), at);
  const last = file.markers.reduce((end, _, index) => {
    const lasts = spanEnd(file, index);
    return frameAtTime(lasts, at) > frameAtTime(end, at) ? lasts : end;
  }, ZERO);
  const [from, to] = [code(ZERO), timecodeOfFrame(start + frameAtTime(plus(last, timeOfFrame(1, at)), at), at)];
  const lines = ['TITLE: markers', `FCM: ${at.dropFrame ? 'DROP FRAME' : 'NON-DROP FRAME'}`, ''];
  lines.push(`001  AX       V     C        ${from} ${to} ${from} ${to}`);
  for (const { time, colour, name } of file.markers) {
    const shade = colour.replace(/\s+/g, '').toUpperCase() || 'WHITE';
    lines.push(`* LOC: ${code(time)} ${shade.padEnd(7)} ${name.replace(/\s+/g, ' ').trim()}`.trimEnd());
  }
  return `${lines.join('\n')}\n`;
}

function frameOn(timecode: string, rate: Rate, line: number): number {
  try {
    return frameOfTimecode(timecode, rate);
  } catch (error) {
    if (error instanceof TimecodeError) throw new MarkerFileError(error.message, line);
    throw error;
  }
}

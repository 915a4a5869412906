import { fraction, frameOfTimecode, type Rate, TimecodeError, timeOfFrame, ZERO } from '../time';
import { type MarkerFile, MarkerFileError, type ReadMarker } from './marker';

const TIMECODE = String.raw`\d{2}:\d{2}:\d{2}[:;.,]\d{2}`;
const EVENT = new RegExp(
  String.raw`^(\d{1,6})\s+(\S+)\s+(\S+)\s+(\S+)(?:\s+(\d+))?\s+(${TIMECODE})\s+(${TIMECODE})\s+(${TIMECODE})\s+(${TIMECODE})\s*$`,
);
const LOCATOR = /^\*\s*LOC\s*:\s*(\S+)(?:\s+(\S+)(?:\s+(.*))?)?$/i;
const FCM = /^FCM\s*:\s*(.+)$/i;

/**
 * Reads a CMX 3600 edit decision list: its events' record times give where the time line starts, its locator comments
 * (`* LOC: timecode COLOUR name`) the markers. Without any locator, each event that carries a clip name is a marker.
 * @param rate the time line's rate; an `FCM` line in the list decides between drop-frame and not
 * @throws MarkerFileError naming the line that cannot be read
 */
export function readEdl(text: string, rate: Rate): MarkerFile {
  let running: Rate = rate;
  let start: number | undefined;
  const markers: { frame: number; marker: ReadMarker; rate: Rate }[] = [];
  const named: { frame: number; name: string; length: number; rate: Rate }[] = [];
  const file: MarkerFile = { format: 'edl', rate, startFrame: undefined, markers: [], findings: [] };
  let events = 0;

  text.split(/\r\n|\r|\n/).forEach((raw, index) => {
    const line = raw.trim();
    const at = index + 1;
    if (line === '') return;
    const fcm = FCM.exec(line);
    if (fcm) {
      running = { ...rate, dropFrame: !/^NON/i.test(fcm[1] ?? '') && rate.den === 1001 && rate.num % 30000 === 0 };
      return;
    }
    const locator = LOCATOR.exec(line);
    if (locator) {
      const [, timecode = '', colour = '', name = ''] = locator;
      const frame = frameOn(timecode, running, at);
      markers.push({
        frame,
        rate: running,
        marker: { time: ZERO, length: ZERO, name: name.trim(), note: '', colour: colour.toLowerCase(), on: 'timeline' },
      });
      return;
    }
    const event = EVENT.exec(line);
    if (event) {
      events += 1;
      const [recordIn, recordOut] = [frameOn(event[8] ?? '', running, at), frameOn(event[9] ?? '', running, at)];
      if (recordOut < recordIn) throw new MarkerFileError('the record-out time lies before the record-in time', at);
      start = start === undefined ? recordIn : Math.min(start, recordIn);
      named.push({ frame: recordIn, name: '', length: recordOut - recordIn, rate: running });
      return;
    }
    if (/^\d{1,6}\s+\S+\s+\S+\s+\S+/.test(line) && /\d:\d/.test(line)) {
      throw new MarkerFileError('an event should end in four timecodes: source in and out, record in and out', at);
    }
    const clip = /^\*\s*FROM CLIP NAME\s*:\s*(.+)$/i.exec(line);
    const last = named.at(-1);
    if (clip?.[1] && last) last.name = clip[1].trim();
  });

  if (events === 0 && markers.length === 0) {
    throw new MarkerFileError('no event and no locator was found, so this is not an edit decision list', 0);
  }
  const first = start ?? Math.min(...markers.map((entry) => entry.frame));
  file.rate = running;
  file.startFrame = first;
  if (markers.length === 0) {
    const clips = named.filter((event) => event.name !== '');
    if (clips.length > 0) {
      file.findings.push({ at: 'file', what: 'no locators in the list', done: 'took the events’ clip names instead' });
    }
    file.markers = clips.map((event) => ({
      time: timeOfFrame(event.frame - first, event.rate),
      length: timeOfFrame(event.length, event.rate),
      name: event.name,
      note: '',
      colour: '',
      on: 'clip',
    }));
    return file;
  }
  for (const { frame, marker, rate: at } of markers) {
    if (frame < first) {
      const what = `“${marker.name}” lies before the first event`;
      file.findings.push({ at: 'file', what, done: 'left it out' });
      continue;
    }
    file.markers.push({ ...marker, time: timeOfFrame(frame - first, at), length: fraction(0) });
  }
  return file;
}

function frameOn(timecode: string, rate: Rate, line: number): number {
  try {
    return frameOfTimecode(timecode, rate);
  } catch (error) {
    if (error instanceof TimecodeError) throw new MarkerFileError(error.message, line);
    throw error;
  }
}

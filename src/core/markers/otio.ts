import {
  compare,
  exactRate,
  type Fraction,
  floor,
  fraction,
  fromDecimal,
  minus,
  over,
  plus,
  rate as rateOf,
  times,
  ZERO,
} from '../time';
import {
  EntryReader,
  type MarkerFile,
  MarkerFileError,
  type MarkerPlace,
  type MarkersToWrite,
  marker,
  named,
  type ReadMarker,
} from './marker';

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const schema = (value: unknown) => (isObject(value) ? String(value.OTIO_SCHEMA ?? '').split('.')[0] : '');
const listOf = (value: unknown): Json[] => (Array.isArray(value) ? value.filter(isObject) : []);

const DEEPEST = 64;

/** A RationalTime in exact seconds. */
function rationalTime(value: unknown, path: string): Fraction {
  if (!isObject(value)) throw new MarkerFileError(`${path} is no RationalTime`, 0);
  const rate = exactRate(Number(value.rate));
  const count = Number(value.value);
  const frames = Number.isSafeInteger(count) ? fraction(count) : fromDecimal(count.toFixed(6));
  if (!rate || !frames) throw new MarkerFileError(`${path} has no rate or no value`, 0);
  return over(frames, rate);
}

interface Range {
  start: Fraction;
  length: Fraction;
}

function timeRange(value: unknown, path: string): Range | undefined {
  if (!isObject(value)) return undefined;
  return {
    start: rationalTime(value.start_time, `${path}.start_time`),
    length: rationalTime(value.duration, `${path}.duration`),
  };
}

/**
 * How an item's own time maps to the time line: its moment `origin` lies at `at`, and each of its seconds takes `scale`
 * seconds there.
 */
interface Mapping {
  at: Fraction;
  origin: Fraction;
  scale: Fraction;
}

/** The part of the time line in which something can be seen; all of it where there is no `to`. */
interface Window {
  from: Fraction;
  to: Fraction | undefined;
}

const ONE: Fraction = { num: 1, den: 1 };
const ALL: Window = { from: { num: Number.MIN_SAFE_INTEGER, den: 1 }, to: undefined };
const timeOn = ({ at, origin, scale }: Mapping, own: Fraction) => plus(at, times(minus(own, origin), scale));
const later = (a: Fraction, b: Fraction) => (compare(a, b) > 0 ? a : b);
const earlier = (a: Fraction, b: Fraction) => (compare(a, b) < 0 ? a : b);

/** The media that a clip can use. In a clip of a later schema several references stand by name. */
function mediaRange(clip: Json, path: string): Range | undefined {
  const named = isObject(clip.media_references)
    ? clip.media_references[String(clip.active_media_reference_key)]
    : undefined;
  const reference = isObject(named) ? named : clip.media_reference;
  return isObject(reference) ? timeRange(reference.available_range, `${path}.available_range`) : undefined;
}

class Reader {
  readonly file: MarkerFile = { format: 'otio', rate: undefined, startFrame: undefined, markers: [], findings: [] };
  readonly entries = new EntryReader(this.file);

  /** The part of an item that the edit uses: its source range, or all that it has. */
  used(item: Json, path: string, depth: number): Range {
    if (depth > DEEPEST) throw new MarkerFileError(`${path}: the time line is nested more than ${DEEPEST} deep`, 0);
    const range = timeRange(item.source_range, `${path}.source_range`);
    if (range) return range;
    const children = listOf(item.children);
    switch (schema(item)) {
      case 'Track':
        return {
          start: ZERO,
          length: children.reduce((sum, child) => plus(sum, this.lasts(child, path, depth + 1)), ZERO),
        };
      case 'Stack':
        return {
          start: ZERO,
          length: children.reduce((most, child) => {
            const length = this.lasts(child, path, depth + 1);
            return compare(length, most) > 0 ? length : most;
          }, ZERO),
        };
      default:
        return mediaRange(item, path) ?? { start: ZERO, length: ZERO };
    }
  }

  /** How long a child of a track lasts there; a transition lies over its neighbours and takes no time of its own. */
  lasts(child: Json, path: string, depth: number): Fraction {
    return schema(child) === 'Transition' ? ZERO : this.used(child, path, depth).length;
  }

  markersOf(item: Json, mapping: Mapping, window: Window, on: MarkerPlace, path: string): void {
    listOf(item.markers).forEach((found, index) => {
      const at = `${path}.markers[${index}]`;
      this.entries.entry(at, () => this.marker(found, mapping, window, on, at));
    });
  }

  private marker(found: Json, mapping: Mapping, window: Window, on: MarkerPlace, at: string): void {
    const range = timeRange(found.marked_range, `${at}.marked_range`);
    if (!range) throw new MarkerFileError(`${at} has no marked_range`, 0);
    const { rate } = (isObject(found.marked_range) ? found.marked_range.start_time : {}) as Json;
    this.file.rate ??= exactRate(Number(rate));
    const length = times(range.length, mapping.scale);
    const fields = {
      time: timeOn(mapping, range.start),
      length: length.num < 0 ? minus(ZERO, length) : length,
      name: typeof found.name === 'string' ? found.name : '',
      note: typeof found.comment === 'string' ? found.comment : noteIn(found.metadata),
      colour: typeof found.color === 'string' ? found.color.toLowerCase() : '',
      on,
    };
    this.file.markers.push(named(marker(this.inside(fields, window, at)), at, this.file.findings));
  }

  /** A marker outside the part that is used is kept at its edge, hidden from viewers, and said. */
  private inside(fields: Omit<ReadMarker, 'hidden'>, { from, to }: Window, path: string): ReadMarker {
    const before = compare(fields.time, from) < 0;
    const beyond = to !== undefined && compare(fields.time, to) > 0;
    if (!before && !beyond) return { ...fields, hidden: false };
    const what = `“${fields.name}” lies outside the part that the edit uses`;
    this.file.findings.push({ at: path, what, done: 'kept it at the edge of that part, not for viewers' });
    return { ...fields, time: before ? from : (to ?? fields.time), hidden: true };
  }

  /**
   * Reads an item and everything in it.
   * @param at where its used part starts on the time line
   * @param around seconds of the time line in one of what it stands in
   * @param window the part of the time line in which that can be seen
   */
  item(item: Json, at: Fraction, around: Fraction, window: Window, path: string, depth: number): void {
    const used = this.used(item, path, depth);
    const speed = warp(item);
    const kind = schema(item);
    const children = listOf(item.children);
    // A range is as long as it lasts in the edit; backwards, its media is used from the end (schema LinearTimeWarp).
    const origin = speed.num < 0 ? minus(used.start, times(used.length, speed)) : used.start;
    const scale = speed.num === 0 ? ZERO : over(around, speed);
    const end = plus(at, times(used.length, around));
    const seen: Window =
      used.length.num > 0 ? { from: later(window.from, at), to: window.to ? earlier(window.to, end) : end } : window;
    const on = kind === 'Stack' ? 'timeline' : kind === 'Track' ? 'track' : 'clip';
    this.markersOf(item, { at, origin, scale }, seen, on, path);
    if (speed.num === 0 && listOf(item.markers).length > 0) {
      this.said(path, 'a frozen picture has no time of its own', 'put its markers at its start');
    }
    if (speed.num <= 0 && children.length > 0) {
      this.said(path, 'a nested time line stands still or plays backwards', 'put its markers at its start');
    }
    const inner = speed.num > 0 ? scale : ZERO;
    // The children's own time line starts at 0, of which the item uses the part from used.start on.
    let child = ZERO;
    children.forEach((each, index) => {
      const from = timeOn({ at, origin: used.start, scale: inner }, child);
      this.item(each, from, inner, seen, `${path}.children[${index}]`, depth + 1);
      if (kind === 'Track') child = plus(child, this.lasts(each, path, depth + 1));
    });
  }

  private said(at: string, what: string, done: string): void {
    this.file.findings.push({ at, what, done });
  }
}

/** The speed of a linear time warp on an item: 2 plays twice as fast, 0 stands still; 1 where there is none. */
function warp(item: Json): Fraction {
  let speed = ONE;
  for (const effect of listOf(item.effects)) {
    if (schema(effect) === 'FreezeFrame') speed = ZERO;
    if (schema(effect) !== 'LinearTimeWarp') continue;
    const scalar = Number(effect.time_scalar);
    speed = times(speed, (Number.isFinite(scalar) && fromDecimal(scalar.toFixed(6))) || ONE);
  }
  return speed;
}

function noteIn(metadata: unknown): string {
  if (!isObject(metadata)) return '';
  for (const key of ['note', 'comment', 'notes', 'comments']) {
    const value = metadata[key];
    if (typeof value === 'string') return value;
  }
  return '';
}

/**
 * Reads the markers of an OpenTimelineIO time line (schemas Timeline, Stack, Track, Clip, Gap, Transition, Marker,
 * RationalTime and TimeRange of the published JSON form): on the time line, on tracks, on clips and in nested stacks, each
 * mapped to the time line's own time.
 * @throws MarkerFileError naming the path that cannot be read
 */
export function readOtio(data: unknown): MarkerFile {
  if (!isObject(data)) throw new MarkerFileError('the file is no OpenTimelineIO object', 0);
  const reader = new Reader();
  try {
    if (schema(data) === 'Timeline') {
      if (!isObject(data.tracks)) throw new MarkerFileError('tracks: there is no stack', 0);
      startOf(data.global_start_time, reader.file);
      const { start } = reader.used(data.tracks, 'tracks', 0);
      reader.item(data.tracks, start, ONE, ALL, 'tracks', 0);
    } else if (['Stack', 'Track', 'Clip'].includes(schema(data) ?? '')) {
      reader.item(data, ZERO, ONE, ALL, schema(data)?.toLowerCase() ?? '', 0);
    } else {
      throw new MarkerFileError(
        `OTIO_SCHEMA is ${String(data.OTIO_SCHEMA)}; a Timeline, Stack, Track or Clip is read`,
        0,
      );
    }
  } catch (error) {
    if (error instanceof RangeError) throw new MarkerFileError(`a time is out of range (${error.message})`, 0);
    throw error;
  }
  reader.file.markers.sort((a, b) => compare(a.time, b.time));
  return reader.entries.done();
}

function startOf(value: unknown, file: MarkerFile): void {
  if (!isObject(value)) return;
  const rate = exactRate(Number(value.rate));
  if (!rate) throw new MarkerFileError('global_start_time has no rate', 0);
  file.rate = rate;
  file.startFrame = Math.round(Number(value.value)) || 0;
}

/** Writes markers as a time line of one gap that spans them, the markers on its stack. */
export function writeOtio(file: MarkersToWrite): string {
  // Without a rate, in thousandths of a second.
  const at = file.rate ?? rateOf(1000);
  const time = (seconds: Fraction) => ({
    OTIO_SCHEMA: 'RationalTime.1',
    rate: at.num / at.den,
    value: floor(times(seconds, at)),
  });
  const range = (start: Fraction, length: Fraction) => ({
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: time(start),
    duration: time(length),
  });
  const end = file.markers.reduce<Fraction>((last, { time: own, length }) => {
    const over = plus(plus(own, length), fraction(1));
    return compare(over, last) > 0 ? over : last;
  }, ZERO);
  const markers = file.markers.map(({ name, note, colour, time: start, length }) => ({
    OTIO_SCHEMA: 'Marker.2',
    name,
    color: colour.toUpperCase() || null,
    comment: note,
    marked_range: range(start, length),
    metadata: {},
  }));
  const gap = {
    OTIO_SCHEMA: 'Gap.1',
    name: '',
    source_range: range(ZERO, end),
    effects: [],
    markers: [],
    metadata: {},
  };
  const track = {
    OTIO_SCHEMA: 'Track.1',
    name: '',
    kind: 'Video',
    source_range: null,
    children: [gap],
    effects: [],
    markers: [],
    metadata: {},
  };
  const stack = {
    OTIO_SCHEMA: 'Stack.1',
    name: 'tracks',
    source_range: null,
    children: [track],
    effects: [],
    markers,
    metadata: {},
  };
  const start = { OTIO_SCHEMA: 'RationalTime.1', rate: at.num / at.den, value: file.startFrame ?? 0 };
  const timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: 'markers',
    global_start_time: start,
    tracks: stack,
    metadata: {},
  };
  return `${JSON.stringify(timeline, null, 2)}\n`;
}

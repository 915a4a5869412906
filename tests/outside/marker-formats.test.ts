import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { MARKER_WRITERS, type MarkerFile, marker, readMarkerFile, readTable } from '@/core/markers';
import { fraction, rate, timeOfFrame, toDecimal } from '@/core/time';
import { readChaptersInside, writeChaptersInside } from '@/media/chapters';
import { makeClip } from '../setup/clips';
import { kettle } from '../setup/command';

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-formats-'));
const bytes = (text: string) => new TextEncoder().encode(text);
const at = rate(30000, 1001);
const FILE: Pick<MarkerFile, 'rate' | 'startFrame' | 'markers'> = {
  rate: at,
  startFrame: 0,
  markers: [
    marker({ time: timeOfFrame(0, at), name: 'One; two = three' }),
    marker({ time: timeOfFrame(361, at), name: 'Back\\slash # and “quotes”' }),
    marker({ time: timeOfFrame(722, at), name: 'Öl 🛶' }),
  ],
};

interface Probe {
  chapters: { start_time: string; tags: { title: string } }[];
}
interface ExactProbe {
  chapters: { start: number; time_base: string; tags: { title: string } }[];
}
const probe = (file: string) =>
  (
    JSON.parse(
      execFileSync('ffprobe', ['-v', 'error', '-show_chapters', '-of', 'json', file], { encoding: 'utf8' }),
    ) as Probe
  ).chapters;

describe('what we write, ffmpeg and ffprobe read (version of the machine)', () => {
  it('FFMETADATA: exact times and every sign of the titles', () => {
    const file = path.join(folder, 'chapters.ffmeta');
    writeFileSync(file, MARKER_WRITERS.ffmetadata(FILE));
    const args = ['-v', 'error', '-f', 'ffmetadata', '-show_chapters', '-of', 'json', file];
    const { chapters } = JSON.parse(execFileSync('ffprobe', args, { encoding: 'utf8' })) as ExactProbe;
    expect(chapters.map(({ tags }) => tags.title)).toEqual(['One; two = three', 'Back\\slash # and “quotes”', 'Öl 🛶']);
    // Frames of 30000/1001: each is 1001 of 30000 parts of a second.
    expect(chapters.map(({ start, time_base }) => [start, time_base])).toEqual([
      [0, '1001/30000'],
      [361, '1001/30000'],
      [722, '1001/30000'],
    ]);
  });

  it.each(['mp4', 'mkv', 'mov'])('chapters inside %s, without encoding again', async (container) => {
    const clip = makeClip({ name: 'inside.mp4', seconds: 30, rate: '30000/1001' });
    const to = path.join(folder, `inside.${container}`);
    await writeChaptersInside(clip, to, FILE);
    expect(probe(to).map(({ tags }) => tags.title)).toEqual(FILE.markers.map((each) => each.name));
    const { markers } = await readChaptersInside(to);
    markers.forEach((found, index) => {
      // MP4 and Matroska as ffmpeg writes them count chapters in thousandths or finer.
      const meant = Number(toDecimal(FILE.markers[index]?.time ?? fraction(0), 6));
      expect(Math.abs(Number(toDecimal(found.time, 6)) - meant)).toBeLessThan(0.0011);
    });
    const packets = (file: string) =>
      execFileSync(
        'ffmpeg',
        ['-v', 'error', '-i', file, '-map', '0:v', '-c', 'copy', '-bsf:v', 'h264_mp4toannexb', '-f', 'md5', '-'],
        { encoding: 'utf8' },
      );
    expect(packets(to)).toBe(packets(clip));
  });
});

describe('Matroska chapters by RFC 9559, section 5.1.7', () => {
  it('reads nested, hidden and several-language chapters', () => {
    // Element names and meaning by RFC 9559; the XML form is the one that tools of the format share. From memory.
    const xml = `<?xml version="1.0"?>
<Chapters><EditionEntry><EditionUID>1</EditionUID>
  <ChapterAtom><ChapterUID>1</ChapterUID><ChapterTimeStart>00:00:00.000000000</ChapterTimeStart><ChapterTimeEnd>00:01:00.000000001</ChapterTimeEnd>
    <ChapterDisplay><ChapterString>Intro &amp; more</ChapterString><ChapterLanguage>eng</ChapterLanguage></ChapterDisplay>
    <ChapterDisplay><ChapterString>Einleitung</ChapterString><ChapterLanguage>ger</ChapterLanguage></ChapterDisplay>
    <ChapterAtom><ChapterUID>2</ChapterUID><ChapterTimeStart>00:00:30.5</ChapterTimeStart><ChapterFlagHidden>1</ChapterFlagHidden>
      <ChapterDisplay><ChapterString>Inside</ChapterString></ChapterDisplay></ChapterAtom>
  </ChapterAtom>
</EditionEntry></Chapters>`;
    const { markers, findings } = readMarkerFile(bytes(xml));
    expect(markers.map(({ time, name, hidden }) => [time, name, hidden])).toEqual([
      [fraction(0), 'Intro & more', false],
      [fraction(61, 2), 'Inside', true],
    ]);
    expect(markers[0]?.length).toEqual(fraction(60_000_000_001, 1_000_000_000));
    expect(findings[0]?.what).toContain('2 languages');
  });
});

describe('what we write as Matroska XML, mkvmerge (mkvtoolnix of Debian) reads', () => {
  it('names, times to the nanosecond, and the hidden flag come back out of a Matroska file', () => {
    const xml = path.join(folder, 'chapters.xml');
    const [first, second, third] = FILE.markers;
    if (!first || !second || !third) throw new Error('There are three markers');
    writeFileSync(xml, MARKER_WRITERS.matroska({ ...FILE, markers: [first, { ...second, hidden: true }, third] }));
    const file = path.join(folder, 'merged.mkv');
    const clip = makeClip({ name: 'inside.mp4', seconds: 30, rate: '30000/1001' });
    execFileSync('mkvmerge', ['-q', '-o', file, '--chapters', xml, clip]);
    expect(probe(file).map(({ tags, start_time }) => [tags.title, start_time])).toEqual([
      [first.name, '0.000000'],
      [second.name, '12.045367'],
      [third.name, '24.090733'],
    ]);
    const back = readMarkerFile(bytes(execFileSync('mkvextract', ['chapters', file], { encoding: 'utf8' })));
    expect(back.markers.map(({ time, hidden }) => [toDecimal(time, 9), hidden])).toEqual([
      ['0.000000000', false],
      // The first nanosecond in the frame: 361 × 1001/30000 is 12.0453666… and 722 × 1001/30000 is 24.0907333…
      ['12.045366667', true],
      ['24.090733334', false],
    ]);
  });
});

describe('CMX 3600 edit decision lists', () => {
  // Columns of an event by the CMX 3600 description (event, reel, track, transition, source in and out, record in and
  // out) and the FCM line for the counting of frames; the list itself is ours. From memory.
  const LIST = `TITLE: HARBOUR
FCM: DROP FRAME

001  TAPE01   V     C        00:10:00;00 00:10:05;00 01:00:00;00 01:00:05;00
* FROM CLIP NAME: A001
* LOC: 01:00:00;00 GREEN   Opening
* LOC: 01:00:03;10 RED     check the horizon
002  TAPE02   V     D    030 00:20:00;00 00:20:55;02 01:00:05;00 01:01:00;02
* LOC: 01:01:00;01 GREEN   impossible
`;

  it('leave out the frame numbers that drop-frame leaves out, by the line, and nothing else', () => {
    const { markers, findings } = readMarkerFile(bytes(LIST));
    expect(markers.map(({ name }) => name)).toEqual(['Opening', 'check the horizon']);
    const finding = findings.find(({ done }) => done === 'left it out');
    expect(finding).toMatchObject({ at: 'line 9', what: expect.stringContaining('does not exist in drop-frame') });
  });

  it('give several locators of an event, a dissolve with its length, and an FCM line that changes the counting', () => {
    const list = LIST.replace('01:01:00;01 GREEN   impossible', '01:00:59;29 GREEN   The last');
    const { markers, rate: found, startFrame } = readMarkerFile(bytes(list));
    expect([found, startFrame]).toEqual([rate(30000, 1001, true), 107_892]);
    expect(markers.map(({ time, name }) => [toDecimal(time, 3), name])).toEqual([
      ['0.000', 'Opening'],
      ['3.336', 'check the horizon'],
      ['60.026', 'The last'],
    ]);
  });

  it('of locators alone start at the full hour before the first', () => {
    const { markers, startFrame } = readMarkerFile(bytes('TITLE: x\n* LOC: 10:00:04:00 BLUE Late\n'), {
      rate: rate(25),
    });
    expect([startFrame, markers[0]?.time]).toEqual([900_000, fraction(4)]);
  });
});

describe('JSON Chapters Format 1.2.0 of the podcast namespace', () => {
  it('reads the fields of its published description', () => {
    // Fields startTime, title, endTime, toc, img, url by the published description; the values are ours.
    const json = JSON.stringify({
      version: '1.2.0',
      title: 'An episode',
      chapters: [
        { startTime: 0, title: 'Intro' },
        { startTime: 168.5, title: 'Hearing', endTime: 260, url: 'https://example.com' },
        { startTime: 260, title: 'A picture only', toc: false, img: 'https://example.com/a.png' },
      ],
    });
    expect(readMarkerFile(bytes(json)).markers.map(({ time, length, hidden }) => [time, length, hidden])).toEqual([
      [fraction(0), fraction(0), false],
      [fraction(337, 2), fraction(183, 2), false],
      [fraction(260), fraction(0), true],
    ]);
  });
});

describe('CSV by RFC 4180', () => {
  it('section 2: quoted fields with commas, line ends and doubled quotation marks', () => {
    const csv = 'time,name,note\r\n1:05,"a ""b"" c","x,\r\ny"\r\n90.5,plain,\r\n';
    expect(readTable(csv).markers.map(({ time, name, note }) => [time, name, note])).toEqual([
      [fraction(65), 'a "b" c', 'x,\r\ny'],
      [fraction(181, 2), 'plain', ''],
    ]);
  });

  it('takes the full hour before its first timecode for the start of the time line, and keeps what lies before it', () => {
    const table = readTable('timecode,name\n01:00:10:05,First\n01:00:20:00,Second\n', { rate: rate(25) });
    expect(table.startFrame).toBe(90_000);
    expect(table.findings[0]?.done).toBe('took 01:00:00:00');
    expect(table.markers.map(({ time }) => time)).toEqual([fraction(51, 5), fraction(20)]);
    const early = readTable('timecode,name\n00:59:50:00,Slate\n', { rate: rate(25), start: '01:00:00:00' });
    expect(early.markers[0]?.time).toEqual(fraction(-10));
    expect(early.findings[0]?.what).toContain('before the start');
  });

  it('takes tabs, a byte-order mark, timecode with a start, and chosen columns', () => {
    const tsv = '\ufeffTimecode\tMarker Name\tColor\n01:00:10:05\tFirst\tGreen\n';
    const options = { rate: rate(25), start: '01:00:00:00' };
    const { markers } = readMarkerFile(bytes(tsv), options);
    expect(markers.map(({ time, name, colour }) => [time, name, colour])).toEqual([
      [fraction(51, 5), 'First', 'green'],
    ]);
    const chosen = readTable('x;250;hello', { rate: rate(25) }, { frame: 1, name: 2 });
    expect(chosen.markers.map(({ time, name }) => [time, name])).toEqual([[fraction(10), 'hello']]);
    expect(() => readTable('time,name\nsoon,x')).toThrow(/Line 2/);
  });

  it('offers the note where the name is empty, and says so', () => {
    const { markers, findings } = readTable('time,name,comment\n5,,Only a note');
    expect(markers[0]?.name).toBe('Only a note');
    expect(findings).toEqual([
      { at: 'line 2', what: 'the name is empty and the note is not', done: 'took the note as the name' },
    ]);
  });
});

const time = (value: number, per = 24) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: per, value });
const range = (start: number, duration: number, per = 24) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start, per),
  duration: time(duration, per),
});
const otioMarker = (start: number, name: string, more: object = {}) => ({
  OTIO_SCHEMA: 'Marker.2',
  name,
  color: 'GREEN',
  marked_range: range(start, 0),
  metadata: {},
  ...more,
});
const clip = (start: number, duration: number, markers: object[], more: object = {}) => ({
  OTIO_SCHEMA: 'Clip.2',
  name: 'c',
  source_range: range(start, duration),
  effects: [],
  markers,
  ...more,
});
const timeline = (children: object[], markers: object[] = [], more: object = {}) => ({
  OTIO_SCHEMA: 'Timeline.1',
  name: 't',
  global_start_time: time(86_400),
  tracks: {
    OTIO_SCHEMA: 'Stack.1',
    children: [{ OTIO_SCHEMA: 'Track.1', kind: 'Video', children, markers: [] }],
    markers,
    ...more,
  },
});

describe('OpenTimelineIO by its published JSON schema and time arithmetic', () => {
  const read = (data: object) => readMarkerFile(bytes(JSON.stringify(data)));
  const seconds = (data: object) => read(data).markers.map(({ time: own, name, on }) => [name, toDecimal(own, 3), on]);

  // The fields of each schema as the standard's document of serialized schemas lists them (from memory, version 0.15).
  const FIELDS: Record<string, string[]> = {
    'Timeline.1': ['metadata', 'name', 'global_start_time', 'tracks'],
    'Stack.1': ['metadata', 'name', 'source_range', 'effects', 'markers', 'children', 'enabled'],
    'Track.1': ['metadata', 'name', 'source_range', 'effects', 'markers', 'children', 'kind', 'enabled'],
    'Gap.1': ['metadata', 'name', 'source_range', 'effects', 'markers', 'enabled'],
    'Marker.2': ['metadata', 'name', 'color', 'marked_range', 'comment'],
    'TimeRange.1': ['duration', 'start_time'],
    'RationalTime.1': ['rate', 'value'],
  };

  it('writes schemas and fields of the standard alone, and each time as a whole frame at the rate', () => {
    type Node = { [field: string]: unknown; OTIO_SCHEMA: string };
    const seen = new Set<string>();
    const look = (value: unknown): void => {
      if (Array.isArray(value)) {
        value.forEach(look);
        return;
      }
      if (typeof value !== 'object' || value === null) return;
      const { OTIO_SCHEMA: schema, ...fields } = value as Node;
      if (schema !== undefined) {
        expect(FIELDS[schema], schema).toEqual(expect.arrayContaining(Object.keys(fields)));
        seen.add(schema);
      }
      Object.values(fields).forEach(look);
    };
    const written = JSON.parse(MARKER_WRITERS.otio(FILE));
    look(written);
    expect([...seen].sort()).toEqual(Object.keys(FIELDS).sort());
    // 361 and 722 are the frames that the markers stand at, 30000/1001 of them a second.
    const at = (frame: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: 30_000 / 1001, value: frame });
    const { markers } = written.tracks;
    expect(markers.map((each: { marked_range: { start_time: object } }) => each.marked_range.start_time)).toEqual(
      [0, 361, 722].map(at),
    );
    expect(written.global_start_time).toEqual(at(0));
  });

  it('maps a marker on a clip through gap, transition and source range to the time line', () => {
    const gap = { OTIO_SCHEMA: 'Gap.1', source_range: range(0, 48) };
    const transition = { OTIO_SCHEMA: 'Transition.1', in_offset: time(6), out_offset: time(6) };
    const data = timeline(
      [clip(100, 24, []), transition, gap, clip(240, 120, [otioMarker(264, 'on clip')])],
      [otioMarker(12, 'on line')],
    );
    expect(seconds(data)).toEqual([
      ['on line', '0.500', 'timeline'],
      ['on clip', '4.000', 'clip'],
    ]);
    expect(read(data)).toMatchObject({ startFrame: 86_400, rate: { num: 24, den: 1 } });
  });

  it('follows a linear time warp, nested stacks and a range on the stack itself', () => {
    const fast = { effects: [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: 2 }] };
    const nested = {
      OTIO_SCHEMA: 'Stack.1',
      source_range: range(24, 48),
      children: [{ OTIO_SCHEMA: 'Track.1', children: [clip(0, 240, [otioMarker(36, 'deep')])] }],
    };
    const data = timeline([clip(0, 48, [otioMarker(48, 'fast')], fast), nested]);
    expect(seconds(data)).toEqual([
      ['fast', '1.000', 'clip'],
      ['deep', '2.500', 'clip'],
    ]);
  });

  it('follows a time warp on a nested time line, and backwards on a clip', () => {
    const warp = (time_scalar: number) => ({ effects: [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar }] });
    const nested = {
      OTIO_SCHEMA: 'Stack.1',
      source_range: range(0, 48),
      ...warp(2),
      children: [{ OTIO_SCHEMA: 'Track.1', children: [clip(0, 96, [otioMarker(36, 'deep')], warp(0.5))] }],
    };
    // Backwards, 48 frames of the edit use the 48 frames of media from 148 down to 100.
    const back = clip(100, 48, [otioMarker(124, 'back')], warp(-1));
    expect(seconds(timeline([nested, back]))).toEqual([
      ['deep', '1.500', 'clip'],
      ['back', '3.000', 'clip'],
    ]);
  });

  it('reports a marker that the range of what it is nested in cuts off', () => {
    const nested = {
      OTIO_SCHEMA: 'Stack.1',
      source_range: range(24, 24),
      children: [{ OTIO_SCHEMA: 'Track.1', children: [clip(0, 240, [otioMarker(60, 'cut off')])] }],
    };
    const { markers, findings } = read(timeline([nested]));
    expect(markers.map(({ name, hidden, time: own }) => [name, hidden, toDecimal(own, 3)])).toEqual([
      ['cut off', true, '1.000'],
    ]);
    expect(findings[0]?.what).toContain('outside the part that the edit uses');
  });

  it('reports a marker outside the used range, and keeps it from viewers', () => {
    const { markers, findings } = read(timeline([clip(100, 24, [otioMarker(90, 'early'), otioMarker(300, 'late')])]));
    expect(markers.map(({ name, hidden, time: own }) => [name, hidden, toDecimal(own, 3)])).toEqual([
      ['early', true, '0.000'],
      ['late', true, '1.000'],
    ]);
    expect(findings).toHaveLength(2);
  });

  it('takes rates such as 23.976023976 for what they are', () => {
    const per = 23.976023976023978;
    const data = {
      ...timeline([], [otioMarker(0, 'x', { marked_range: range(24_000, 0, per) })]),
      global_start_time: null,
    };
    expect(read(data).rate).toEqual(rate(24000, 1001));
    expect(toDecimal(read(data).markers[0]?.time ?? fraction(0), 6)).toBe('1001.000000');
  });
});

describe('a description with timestamps', () => {
  it.each([
    ['0:00 Intro\n1:05 - Cut\n1:02:03 End', [0, 65, 3723]],
    ['[00:00] Intro\n(01:05) Cut', [0, 65]],
    ['• Intro – 0:00\n• Cut | 01:05', [0, 65]],
    ['Hello\n\n00:00: Intro\nSee you at the yard\n01:05 Cut', [0, 65]],
  ])('%j', (text, times) => {
    const { markers } = readMarkerFile(bytes(text));
    expect(markers.map((each) => each.time.num / each.time.den)).toEqual(times);
    expect(markers[0]?.name).toBe('Intro');
  });
});

describe('the command line', () => {
  const edl = path.join(folder, 'a.edl');
  writeFileSync(
    edl,
    'TITLE: a\nFCM: DROP FRAME\n\n001  AX       V     C        01:00:00;00 01:03:00;02 01:00:00;00 01:03:00;02\n* LOC: 01:00:20;00 GREEN   A\n* LOC: 01:01:00;02 RED     note\n* LOC: 01:01:30;00 GREEN   B\n* LOC: 01:01:34;00 GREEN   C\n',
  );
  const run = (...args: string[]) => kettle(args);

  it('prints markers as JSON, frames counted from the time line’s start', async () => {
    const { out } = await run('markers', edl, '--rate', '29.97df');
    const printed = JSON.parse(out);
    expect(printed.rate).toEqual({ num: 30000, den: 1001, dropFrame: true });
    expect(printed.startFrame).toBe(107_892);
    expect(printed.markers[1]).toMatchObject({
      frame: 1800,
      seconds: '60.060000',
      name: 'note',
      colour: 'red',
      lengthFrames: 0,
      on: 'timeline',
    });
  });

  it('converts the chosen colour and range', async () => {
    const { out } = await run('convert', edl, '--to', 'vtt', '--colour', 'green', '--in', '01:01:00;02');
    // 898 frames at 1001/30000 are 29.963266… s: .963 would still show the frame before.
    expect(out).toContain('00:00:29.964 --> 00:00:33.968\nB');
    expect(out).not.toContain('note');
  });

  it('prints chapter lines, says on standard error what is wrong, and exits 1 until it is repaired', async () => {
    const args = ['chapters', edl, '--site', 'lanternfold', '--duration', '180.08', '--colour', 'green'];
    const broken = await run(...args);
    expect(broken.status).toBe(1);
    expect(broken.out).toBe('0:20 A\n1:30 B\n1:34 C\n');
    expect(broken.said).toContain('does not start at 0:00');
    expect(broken.said).toContain('“B”: 4 s long');
    const repaired = await run(...args, '--repair');
    expect(repaired).toMatchObject({ status: 0, out: '0:00 Opening\n0:20 A\n1:34 C\n' });
  });
});

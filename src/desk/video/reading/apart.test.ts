import { describe, expect, it } from 'vitest';
import { PLAIN_TIME_LINE } from '@/core/chapters';
import { readCaptionFile, readMarkers } from './apart';
import { markersIn } from './markers-in';

const bytes = (text: string) => new TextEncoder().encode(text);
const stamp = (seconds: number) => new Date(seconds * 1000).toISOString().slice(11, 23);
const asked = (text: string, fileName: string) => ({
  bytes: bytes(text),
  fileName,
  columns: undefined,
  timeLine: PLAIN_TIME_LINE,
  exact: { num: 25, den: 1 },
});
const chapters = (count: number) =>
  JSON.stringify({
    version: '1.2.0',
    chapters: Array.from({ length: count }, (_, n) => ({ startTime: n, title: `Chapter ${n} of very many` })),
  });

describe('a large file', () => {
  it('is read in a thread as a small one is where it is asked for, and nothing else stands still', async () => {
    const file = asked(chapters(60_000), 'many.json');
    expect(file.bytes.length).toBeGreaterThan(2_000_000);
    let beats = 0;
    const timer = setInterval(() => {
      beats += 1;
    }, 5);
    const read = await readMarkers(file);
    clearInterval(timer);
    expect(read.file?.markers).toHaveLength(60_000);
    expect(read).toEqual(markersIn(file));
    // The thread takes most of a second; this one went on meanwhile.
    expect(beats).toBeGreaterThan(20);
  }, 30_000);

  it('that is wrong says the same as a small one: what, and in which line', async () => {
    const cues = Array.from({ length: 9000 }, (_, n) => `${stamp(n)} --> ${stamp(n + 1)}\nLine ${n} of the captions`);
    const broken = `WEBVTT\n\n${cues.join('\n\n')}`;
    const read = await readCaptionFile({ bytes: bytes(broken), duration: undefined });
    expect(read.webvtt).toContain('Line 8999 of the captions');
    const nothing = `${'no time here at all\n'.repeat(40_000)}`;
    await expect(readMarkers(asked(nothing, 'x.txt'))).rejects.toMatchObject({ name: 'MarkerFileError' });
  }, 30_000);
});

import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { readCaptions, writeSubrip, writeWebvttCaptions } from '@/core/captions';

/** As editors write it: hours, two lines, signs that WebVTT escapes, a byte-order mark, line ends of two signs. */
const SUBRIP = [
  ['1', '00:00:01,000 --> 00:00:04,040', 'A spokeshave wants', 'a flat sole'],
  ['2', '00:00:04,040 --> 00:00:06,999', 'Oak & ash, 3 < 4'],
  ['3', '00:59:59,500 --> 01:00:02,001', 'Öl, 🛶 und Pech'],
  ['4', '12:34:56,789 --> 12:34:57,000', 'The end'],
];
const file = `\ufeff${SUBRIP.map((block) => `${block.join('\r\n')}\r\n`).join('\r\n')}`;

/** What ffmpeg makes of subtitles: each cue's times and words. */
function byFfmpeg(input: string, from: 'srt' | 'webvtt', to: 'srt' | 'webvtt'): string[][] {
  const out = execFileSync('ffmpeg', ['-v', 'error', '-f', from, '-i', 'pipe:0', '-f', to, 'pipe:1'], { input });
  return cuesOf(out.toString());
}

/** Times and lines of each cue, in either format: hours are always there, and a full stop before the thousandths. */
function cuesOf(text: string): string[][] {
  return text
    .replaceAll('\r', '')
    .split('\n\n')
    .map((block) => block.split('\n').filter(Boolean))
    .map((lines) => lines.slice(lines.findIndex((line) => line.includes('-->'))))
    .filter(([first]) => first?.includes('-->'))
    .map(([times = '', ...lines]) => [
      ...times.split(' --> ').map((stamp) => stamp.replace(',', '.').replace(/^(\d\d:\d\d\.)/, '00:$1')),
      ...lines.map((line) => line.replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&amp;', '&')),
    ]);
}

describe('captions, held against what ffmpeg makes of them (version of the machine)', () => {
  const { captions } = readCaptions(Buffer.from(file));

  it('SubRip becomes WebVTT with the same times and words', () => {
    const ours = cuesOf(writeWebvttCaptions(captions));
    expect(ours).toEqual(byFfmpeg(file, 'srt', 'webvtt'));
    expect(ours).toHaveLength(SUBRIP.length);
    expect(ours[2]?.slice(0, 2)).toEqual(['00:59:59.500', '01:00:02.001']);
  });

  it('what we write, ffmpeg reads as it was: WebVTT and SubRip', () => {
    const meant = SUBRIP.map(([, times = '', ...lines]) => [...times.replaceAll(',', '.').split(' --> '), ...lines]);
    expect(byFfmpeg(writeWebvttCaptions(captions), 'webvtt', 'srt')).toEqual(meant);
    expect(byFfmpeg(writeSubrip(captions), 'srt', 'srt')).toEqual(meant);
  });

  it('is read from UTF-16, too, as some editors save it (RFC 2781, byte-order mark)', () => {
    const wide = execFileSync('iconv', ['-f', 'UTF-8', '-t', 'UTF-16'], { input: file.slice(1) });
    expect(readCaptions(wide).captions).toEqual(captions);
  });
});

import { webvttEscaped, webvttStamp } from '../markers';
import { fraction } from '../time';
import type { Caption } from './caption';

const stamp = (milliseconds: number) => webvttStamp(fraction(milliseconds, 1000));

/** Captions as a WebVTT file (W3C WebVTT, section 4.1). */
export function writeWebvttCaptions(captions: readonly Caption[]): string {
  const cues = captions.map(
    ({ from, to, lines }) => `${stamp(from)} --> ${stamp(to)}\n${lines.map(webvttEscaped).join('\n')}\n`,
  );
  return ['WEBVTT\n', ...cues].join('\n');
}

/** Captions as a SubRip file. */
export function writeSubrip(captions: readonly Caption[]): string {
  const comma = (milliseconds: number) => stamp(milliseconds).replace('.', ',');
  const blocks = captions.map(
    ({ from, to, lines }, index) => `${index + 1}\n${comma(from)} --> ${comma(to)}\n${lines.join('\n')}\n`,
  );
  return blocks.join('\n');
}

import { describe, expect, it } from 'vitest';
import { readWebvtt, webvttTime } from '@/core/markers';
import { fraction } from '@/core/time';

describe('WebVTT by the W3C Candidate Recommendation of 4 April 2019', () => {
  // Section 4.3, "WebVTT timestamp": hours optional, two or more digits; minutes and seconds 00 to 59; three digits of a second.
  it.each([
    ['00:00.000', fraction(0)],
    ['00:20.000', fraction(20)],
    ['01:07:32.053', fraction(4052053, 1000)],
    ['100:00:00.000', fraction(360000)],
    ['59:59.999', fraction(3599999, 1000)],
  ])('%s is a timestamp', (text, time) => {
    expect(webvttTime(text)).toEqual(time);
  });

  it.each(['0:00.000', '00:60.000', '60:00.000', '00:00.00', '00:00,000', '1:00:00.000', '00:00.0000', '-00:01.000'])(
    '%s is none',
    (text) => {
      expect(webvttTime(text)).toBeUndefined();
    },
  );

  it('reads the example of chapters in section 1.5, "Other features": nested by time, one title each', () => {
    // From memory of the specification's chapter example.
    const text = `WEBVTT

NOTE
This is from a talk Silvia gave about WebVTT.

Slide 1
00:00:00.000 --> 00:00:10.700
Title Slide

Slide 2
00:00:10.700 --> 00:00:47.600
Introduction by Naomi Black

Slide 3
00:00:47.600 --> 00:01:50.100
Impact of Captions on the Web
`;
    expect(readWebvtt(text).markers.map((marker) => [marker.time, marker.name])).toEqual([
      [fraction(0), 'Title Slide'],
      [fraction(107, 10), 'Introduction by Naomi Black'],
      [fraction(238, 5), 'Impact of Captions on the Web'],
    ]);
  });

  it('passes over comments, styles and regions, and resolves character references (4.2.2)', () => {
    const text =
      'WEBVTT - a title\nKind: chapters\n\nSTYLE\n::cue { color: red }\n\nREGION\nid:fred\n\n00:01.000 --> 00:02.000\n<v Roger>A &lt; B &amp; C&nbsp;D';
    expect(readWebvtt(text).markers.map((marker) => marker.name)).toEqual(['A < B & C D']);
  });
});

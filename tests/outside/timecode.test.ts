import timecode from 'smpte-timecode';
import { describe, expect, it } from 'vitest';
import { frameOfTimecode, rate, TimecodeError, timecodeOfFrame } from '@/core/time';

const DROP = rate(30000, 1001, true);

describe('drop-frame timecode by SMPTE ST 12-1', () => {
  // SMPTE ST 12-1:2014, 5.2.2: numbers 00 and 01 are dropped at the start of each minute except 00, 10, 20, 30, 40, 50.
  // The frame counts follow from that rule; the texts are from memory.
  it.each([
    ['00:00:59;29', 1799],
    ['00:01:00;02', 1800],
    ['00:01:59;29', 3597],
    ['00:02:00;02', 3598],
    ['00:09:59;29', 17981],
    ['00:10:00;00', 17982],
    ['01:00:00;00', 107892],
    ['23:59:59;29', 2589407],
  ])('%s is frame %i', (text, frame) => {
    expect(frameOfTimecode(text, DROP)).toBe(frame);
    expect(timecodeOfFrame(frame, DROP)).toBe(text);
  });

  it('refuses the numbers that are dropped', () => {
    for (const minute of [1, 2, 9, 11, 59]) {
      const at = String(minute).padStart(2, '0');
      expect(() => frameOfTimecode(`00:${at}:00;00`, DROP)).toThrow(TimecodeError);
      expect(() => frameOfTimecode(`00:${at}:00;01`, DROP)).toThrow(TimecodeError);
    }
    expect(frameOfTimecode('00:10:00;00', DROP)).toBe(17982);
  });
});

// What is dropped repeats every ten minutes; the hours count alike at both rates.
describe('agreement with the registry package smpte-timecode, frame by frame', () => {
  it.each([
    [rate(30000, 1001, true), 29.97 as const, '24:00:00;00'],
    [rate(60000, 1001, true), 59.94 as const, '02:00:00;00'],
  ])(
    '%o, %s, until %s',
    (at, theirs, until) => {
      const end = frameOfTimecode(until, at);
      const counter = timecode(0, theirs, true);
      for (let frame = 0; frame < end; frame += 1) {
        const [ours, other] = [timecodeOfFrame(frame, at), counter.toString()];
        if (ours !== other) expect.fail(`frame ${frame}: ${ours}, and they say ${other}`);
        if (frameOfTimecode(ours, at) !== frame) expect.fail(`${ours} is not read as frame ${frame}`);
        counter.add(1);
      }
    },
    120_000,
  );
});

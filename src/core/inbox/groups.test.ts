import { describe, expect, it } from 'vitest';
import { type FoundFile, groupsAtRest, isPartial } from './groups';

const file = (name: string, size = 100, changedAt = 0): FoundFile => ({ name, size, changedAt });
const atRest = (...files: FoundFile[]) => groupsAtRest(files, files, 10);

describe('an inbox', () => {
  it('takes a video with the files of its name', () => {
    const names = [
      'keel.mp4',
      'keel.edl',
      'keel.chapters.vtt',
      'keel.vtt',
      'keel.pt-BR.srt',
      'keel.jpg',
      'mast.jpg',
      'notes.txt',
    ];
    expect(atRest(...names.map((name) => file(name)))).toEqual([
      {
        video: 'keel.mp4',
        markers: ['keel.edl', 'keel.chapters.vtt'],
        captions: [
          { name: 'keel.vtt', language: undefined },
          { name: 'keel.pt-BR.srt', language: 'pt-BR' },
        ],
        picture: 'keel.jpg',
      },
    ]);
  });

  it('keeps videos of one name apart, and others whose name only begins alike', () => {
    const groups = atRest(file('a.mp4'), file('a.mov'), file('ab.mp4'), file('ab.edl'));
    expect(groups.map(({ video, markers }) => [video, markers])).toEqual([
      ['a.mp4', []],
      ['a.mov', []],
      ['ab.mp4', ['ab.edl']],
    ]);
  });

  it.each(['.hidden.mp4', 'clip.mp4.part', 'clip.mp4.crdownload', '~clip.mp4', 'clip.mp4~', 'clip.tmp'])(
    'leaves %s alone',
    (name) => {
      expect(isPartial(name)).toBe(true);
      expect(atRest(file(name))).toEqual([]);
    },
  );

  it('waits for what still grows, was changed just now, was not there before, or is empty', () => {
    expect(groupsAtRest([file('a.mp4', 200)], [file('a.mp4', 100)], 10)).toEqual([]);
    expect(groupsAtRest([file('a.mp4', 100, 11)], [file('a.mp4')], 10)).toEqual([]);
    expect(groupsAtRest([file('a.mp4')], [], 10)).toEqual([]);
    expect(atRest(file('a.mp4', 0))).toEqual([]);
    // Its markers are still being written.
    expect(groupsAtRest([file('a.mp4'), file('a.edl', 9)], [file('a.mp4'), file('a.edl', 5)], 10)).toEqual([]);
  });
});

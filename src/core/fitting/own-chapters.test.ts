import { describe, expect, it } from 'vitest';
import { toDecimal } from '../time';
import { chaptersInText } from './own-chapters';

const found = (...lines: string[]) =>
  chaptersInText(lines.join('\n')).map(({ time, title }) => `${toDecimal(time, 0)} ${title}`);

describe('the chapters in a text by hand', () => {
  it('are its lines that begin with a time, the first 0:00, each later than the one before', () => {
    expect(found('About it.', '', '0:00 Start', '  1:05 The rope ', '1:00:00 End', '', 'More at 5:00.')).toEqual([
      '0 Start',
      '65 The rope',
      '3600 End',
    ]);
  });

  it('are none where the times are anything else', () => {
    expect(found('0:00 Alone')).toEqual([]);
    expect(found('9:00 Doors', '18:30 Launch')).toEqual([]);
    expect(found('0:00 Start', '0:40 Late', '0:20 Early')).toEqual([]);
    expect(found('0:00', '0:20')).toEqual([]);
    expect(found('No time at all')).toEqual([]);
  });
});

import type { Chapter } from '../chapters';
import { compare, fraction } from '../time';

/** A line of a chapter list: a time, then a title. */
const LINE = /^\s*(?:(\d{1,3}):)?(\d{1,2}):([0-5]\d)\s+(\S.*?)\s*$/;
const FEWEST = 2;

/**
 * The chapters that a text has in it, written by hand: lines that begin with a time, the first of them 0:00, each later than
 * the one before. None where the times are anything else.
 */
export function chaptersInText(text: string): Chapter[] {
  const chapters = text.split('\n').flatMap((line): Chapter[] => {
    const [, hours = '0', minutes, seconds, title] = LINE.exec(line) ?? [];
    if (minutes === undefined || seconds === undefined || title === undefined) return [];
    const time = fraction((Number(hours) * 60 + Number(minutes)) * 60 + Number(seconds));
    return [{ markerId: `text ${line}`, time, title, repair: undefined }];
  });
  const [first] = chapters;
  const rises = chapters.every(({ time }, index) => {
    const before = chapters[index - 1];
    return !before || compare(time, before.time) > 0;
  });
  return first?.time.num === 0 && rises && chapters.length >= FEWEST ? chapters : [];
}

import type { MarkerPlace } from '../markers';
import { type ChapterLine, compare, type Fraction, floor, minus, viewerTime, ZERO } from '../time';
import { type ChapterChoice, isChosen, type MarkerKind } from './choice';

/** A marker as chapters are made from it: `time` in exact seconds of the time line. */
export interface ChapterSource {
  id: string;
  time: Fraction;
  name: string;
  colour: string;
  on: MarkerPlace;
  kind: MarkerKind;
}

/** What was done to a chapter so that it keeps a site's rules. */
export type ChapterRepair = 'put in' | 'moved' | 'joined' | 'named' | 'shortened';

/** A chapter of the cut; where `repair` is 'put in', no marker stands behind it. */
export interface Chapter {
  markerId: string | undefined;
  time: Fraction;
  title: string;
  repair: ChapterRepair | undefined;
}

/** The part of the time line that was exported, in exact seconds from its start; `to` is the first moment after it. */
export interface ExportedRange {
  from: Fraction;
  to: Fraction | undefined;
}

/** Why a chosen marker became no chapter. */
export interface LeftOut {
  marker: ChapterSource;
  why: string;
}

/**
 * The chapters that the chosen markers make, in order of time, with times in the exported file: those inside the range,
 * one for each whole second. What was left out is listed.
 * @param choice which markers are chapters, and which are hidden
 * @param range the part of the time line that the cut was exported from; times are counted from its start
 */
export function chaptersFromMarkers(
  markers: readonly ChapterSource[],
  choice: ChapterChoice,
  range: ExportedRange,
): { chapters: Chapter[]; leftOut: LeftOut[] } {
  const chapters: Chapter[] = [];
  const leftOut: LeftOut[] = [];
  const chosen = markers.filter((marker) => isChosen(marker, choice)).sort((a, b) => compare(a.time, b.time));
  for (const marker of chosen) {
    const why = reasonToLeaveOut(marker, range);
    if (why) {
      leftOut.push({ marker, why });
      continue;
    }
    const inFile = minus(marker.time, range.from);
    const last = chapters.at(-1);
    if (last && floor(last.time) === floor(inFile)) {
      leftOut.push({ marker, why: `lies on the same second as “${last.title}”` });
      continue;
    }
    chapters.push({ markerId: marker.id, time: inFile, title: oneLine(marker.name), repair: undefined });
  }
  return { chapters, leftOut };
}

function reasonToLeaveOut(marker: ChapterSource, { from, to }: ExportedRange): string | undefined {
  if (compare(marker.time, from) < 0) return 'lies before the exported range';
  if (to && compare(marker.time, to) >= 0) return 'lies after the exported range';
  return undefined;
}

/** The lines that viewers see, all in the form that the cut's length asks for. */
export function chapterLines(chapters: readonly Chapter[], duration: Fraction | undefined): ChapterLine[] {
  const last = chapters.at(-1);
  const longest = floor(duration ?? last?.time ?? ZERO);
  return chapters.map((chapter) => ({ stamp: viewerTime(chapter.time, longest), title: chapter.title }));
}

function oneLine(name: string): string {
  return name.replace(/\s+/g, ' ').trim();
}

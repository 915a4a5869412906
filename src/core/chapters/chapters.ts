import { compare, type Fraction, floor, viewerTime, ZERO } from '../time';

/** A marker as chapters are made from it: `time` in exact seconds of the cut. */
export interface ChapterSource {
  id: string;
  time: Fraction;
  name: string;
  colour: string;
}

/** What was done so that the first chapter starts at 0:00: one was put before it, or it was moved there. */
export type StartRepair = 'put in' | 'moved';

/** A chapter of the cut; where `repair` is 'put in', no marker stands behind it. */
export interface Chapter {
  markerId: string | undefined;
  time: Fraction;
  title: string;
  repair: StartRepair | undefined;
}

/** What a site asks of chapters; the profile of each site holds one. Lengths in whole seconds. */
export interface ChapterRules {
  firstAtZero: boolean;
  fewest: number;
  shortest: number;
}

/** What is wrong with the chapters; `index` names the chapter, and is undefined where the whole list is meant. */
export interface ChapterFinding {
  index: number | undefined;
  what: string;
}

/** A line as viewers read it. */
export interface ChapterLine {
  stamp: string;
  title: string;
}

/** An opening chapter shorter than this would break the rules itself (common practice: ten seconds, no source). */
const SHORTEST_OPENING_SECONDS = 10;

/** The name that the opening chapter gets where the first chosen marker does not lie at 0:00. */
export const OPENING_TITLE = 'Opening';

/**
 * The chapters that markers of the chosen colours make, in order of time: those inside the cut, one for each whole
 * second. Where the first lies later than 0:00 an opening chapter is put before it, or, where that would be too short, the
 * first is moved to 0:00.
 * @param colours the colours that are for viewers; '' stands for markers without a colour
 * @param duration the cut's length in exact seconds, or undefined while it is not known
 */
export function chaptersFromMarkers(
  markers: readonly ChapterSource[],
  colours: readonly string[],
  duration: Fraction | undefined,
): Chapter[] {
  const wanted = new Set(colours);
  const chosen = markers
    .filter((marker) => wanted.has(marker.colour) && compare(marker.time, ZERO) >= 0)
    .filter((marker) => duration === undefined || compare(marker.time, duration) < 0)
    .sort((a, b) => compare(a.time, b.time));
  const chapters: Chapter[] = [];
  for (const marker of chosen) {
    const last = chapters.at(-1);
    if (last && floor(last.time) === floor(marker.time)) continue;
    chapters.push({ markerId: marker.id, time: marker.time, title: oneLine(marker.name), repair: undefined });
  }
  const first = chapters[0];
  const start = first ? floor(first.time) : 0;
  if (first && start >= SHORTEST_OPENING_SECONDS) {
    chapters.unshift({ markerId: undefined, time: ZERO, title: OPENING_TITLE, repair: 'put in' });
  } else if (first && start > 0) {
    chapters[0] = { ...first, time: ZERO, repair: 'moved' };
  }
  return chapters;
}

/** The lines that viewers see, all in the form that the cut's length asks for. */
export function chapterLines(chapters: readonly Chapter[], duration: Fraction | undefined): ChapterLine[] {
  const last = chapters.at(-1);
  const longest = floor(duration ?? last?.time ?? ZERO);
  return chapters.map((chapter) => ({ stamp: viewerTime(chapter.time, longest), title: chapter.title }));
}

/** The lines as they stand in a description. */
export function chapterText(lines: readonly ChapterLine[]): string {
  return lines.map((line) => `${line.stamp} ${line.title}`).join('\n');
}

/** What of the chapters breaks a site's rules; none means that the site shows them. No chapters break no rule. */
export function chapterFindings(
  chapters: readonly Chapter[],
  rules: ChapterRules,
  duration: Fraction | undefined,
): ChapterFinding[] {
  const findings: ChapterFinding[] = [];
  if (chapters.length === 0) return findings;
  if (chapters.length < rules.fewest) {
    findings.push({ index: undefined, what: `There are ${chapters.length} chapters; the site wants ${rules.fewest}` });
  }
  if (rules.firstAtZero && floor(chapters[0]?.time ?? ZERO) !== 0) {
    findings.push({ index: 0, what: 'The first chapter does not start at 0:00' });
  }
  chapters.forEach((chapter, index) => {
    if (chapter.title === '') findings.push({ index, what: 'The chapter has no name' });
    const end = chapters[index + 1]?.time ?? duration;
    if (!end) return;
    // Viewers' stamps are whole seconds, and a site measures between those.
    const seconds = floor(end) - floor(chapter.time);
    if (seconds < rules.shortest) {
      findings.push({ index, what: `${seconds} s long; the site wants ${rules.shortest}` });
    }
  });
  return findings;
}

function oneLine(name: string): string {
  return name.replace(/\s+/g, ' ').trim();
}

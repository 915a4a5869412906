import { type Fraction, plus } from '../time';
import type { Chapter } from './chapters';
import type { MarkerKind } from './choice';
import {
  inOrder,
  joinToNeighbour,
  moveFirstToZero,
  nameByNumber,
  putOpening,
  repairChapters,
  shortenTitle,
} from './repairs';
import { type ChapterFinding, type ChapterRules, chapterFindings } from './rules';

/** A repair that a person may take: what it does, in words, and the chapters after it. */
export interface RepairOffer {
  says: string;
  after: Chapter[];
}

/**
 * The repairs that answer a finding; none where only a person knows what to do.
 * @param rules of the site that the finding is of
 * @param duration of the cut, in seconds; undefined where it is not known yet
 */
export function repairsFor(
  finding: ChapterFinding,
  chapters: readonly Chapter[],
  rules: ChapterRules,
  duration: Fraction | undefined,
): RepairOffer[] {
  const { index } = finding;
  const chapter = index === undefined ? undefined : chapters[index];
  if (index === undefined || !chapter) return [];
  switch (finding.rule) {
    case 'start': {
      const opening = { says: 'Put an opening chapter before it', after: putOpening(chapters) };
      const moved = { says: 'Move it to 0:00', after: moveFirstToZero(chapters) };
      // An opening that is too short would only break the next rule.
      const keeps = !chapterFindings(opening.after, rules, duration).some((each) => each.index === 0);
      return keeps ? [opening, moved] : [moved];
    }
    case 'shortest':
      if (chapters.length < 2) return [];
      return [
        {
          says: index === 0 ? 'Join it to the one after it' : 'Join it to the one before it',
          after: joinToNeighbour(chapters, index),
        },
      ];
    case 'title': {
      const limit = rules.longestTitle;
      if (!limit) return [];
      const title = shortenTitle(chapter.title, limit);
      const after = chapters.map((each, at) =>
        at === index ? { ...each, title, repair: 'shortened' as const } : each,
      );
      return [{ says: `Shorten it to “${title}”`, after }];
    }
    case 'no title': {
      const after = nameByNumber(chapters, index);
      const named = { says: `Name it “${after[index]?.title}”`, after };
      const join =
        index === 0 ? [] : [{ says: 'Join it to the one before it', after: joinToNeighbour(chapters, index) }];
      return [named, ...join];
    }
    case 'order':
    case 'beyond':
      return [{ says: 'Put them in order and leave out what cannot stand', after: inOrder(chapters, duration) }];
    default:
      return [];
  }
}

/**
 * All repairs at once, or undefined where there is nothing that can be repaired.
 * @param rules of the strictest site
 * @param duration of the cut, in seconds; undefined where it is not known yet
 */
export function allRepairs(
  chapters: readonly Chapter[],
  rules: ChapterRules,
  duration: Fraction | undefined,
): RepairOffer | undefined {
  const findings = chapterFindings(chapters, rules, duration);
  const offers = findings.flatMap((finding) => repairsFor(finding, chapters, rules, duration));
  if (offers.length < 2) return undefined;
  return { says: 'Repair all', after: repairChapters(chapters, rules, duration) };
}

/** What a repair changes on the time line: markers by id, or a new one where `id` is undefined. */
export interface MarkerMend {
  id: string | undefined;
  /** Exact seconds on the time line. */
  time: Fraction;
  name: string;
  /** What it becomes; undefined where that stays. */
  kind: MarkerKind | undefined;
}

/**
 * The changes of markers that turn one list of chapters into another: a chapter that goes becomes a note, so that
 * nothing is lost; one that is put in becomes a marker.
 * @param from the in point, in exact seconds of the time line
 */
export function mendsBetween(before: readonly Chapter[], after: readonly Chapter[], from: Fraction): MarkerMend[] {
  const stays = new Map(after.map((chapter) => [chapter.markerId, chapter]));
  const gone = before
    .filter((chapter) => !stays.has(chapter.markerId))
    .map(({ markerId, time, title }) => ({
      id: markerId,
      time: plus(time, from),
      name: title,
      kind: 'note' as const,
    }));
  const old = new Map(before.map((chapter) => [chapter.markerId, chapter]));
  const changed = after.flatMap(({ markerId, time, title }): MarkerMend[] => {
    const was = old.get(markerId);
    if (was && was.title === title && was.time.num === time.num && was.time.den === time.den) return [];
    return [{ id: markerId, time: plus(time, from), name: title, kind: markerId ? undefined : 'chapter' }];
  });
  return [...gone, ...changed];
}

import { frameAtTime, type Rate } from '../time';
import type { ReadMarker } from './marker';

/** How the markers of a file come to those that are there: in their place, beside them, or onto those at the same frame. */
export const IMPORT_WAYS = ['replace', 'add', 'merge'] as const;
export type ImportWay = (typeof IMPORT_WAYS)[number];

/** What an import does: markers that are new, those that change in place (by id), and the ids of those that go. */
export interface ImportEffect {
  fresh: ReadMarker[];
  changed: { id: string; to: ReadMarker }[];
  gone: string[];
}

type Existing = Pick<ReadMarker, 'time' | 'name' | 'note' | 'colour' | 'hidden'> & { id: string };

// A file that does not hide a marker says nothing of one that was made a note by hand.
const same = (old: Existing, found: ReadMarker) =>
  old.name === found.name && old.note === found.note && old.colour === found.colour && (old.hidden || !found.hidden);

/**
 * What taking a file's markers would do to those that are there. Markers at one frame of `rate` are at the same time.
 * @param existing what the video has
 * @param found what the file has
 */
export function importEffect(
  existing: readonly Existing[],
  found: readonly ReadMarker[],
  way: ImportWay,
  rate: Rate,
): ImportEffect {
  if (way === 'replace') return { fresh: [...found], changed: [], gone: existing.map((marker) => marker.id) };
  if (way === 'add') return { fresh: [...found], changed: [], gone: [] };
  const byFrame = new Map(existing.map((marker) => [frameAtTime(marker.time, rate), marker]));
  const effect: ImportEffect = { fresh: [], changed: [], gone: [] };
  for (const marker of found) {
    const old = byFrame.get(frameAtTime(marker.time, rate));
    if (!old) effect.fresh.push(marker);
    else if (!same(old, marker)) effect.changed.push({ id: old.id, to: { ...marker, time: old.time } });
  }
  return effect;
}

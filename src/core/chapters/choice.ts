import type { MarkerPlace } from '../markers';

/** What a marker is for: as the choice of the video says, always a chapter, or always a note to the team. */
export const MARKER_KINDS = ['by choice', 'chapter', 'note'] as const;
export type MarkerKind = (typeof MARKER_KINDS)[number];

/** Which markers of a video are for viewers. A marker has to meet all three. */
export interface ChapterChoice {
  /** Colours; '' stands for markers without one. No colour chosen means that no marker is. */
  colours: string[];
  /** Where the marker sat in the edit; none named means anywhere. */
  places: MarkerPlace[];
  /** A pattern for the name, `*` standing for anything; without one it may stand anywhere in the name. '' is any name. */
  name: string;
}

/** The choice of a video that nobody has chosen for yet. */
export const NO_CHOICE: ChapterChoice = { colours: [], places: [], name: '' };

/** Whether a name fits a pattern, whatever its case. */
export function nameFits(name: string, pattern: string): boolean {
  const wanted = pattern.trim().toLocaleLowerCase('en');
  const lowerName = name.toLocaleLowerCase('en');
  const parts = wanted.split('*');
  if (parts.length === 1) return lowerName.includes(wanted);
  const [first = '', last = ''] = [parts[0], parts.at(-1)];
  if (!lowerName.startsWith(first) || !lowerName.endsWith(last) || lowerName.length < first.length + last.length)
    return false;
  let at = first.length;
  for (const part of parts.slice(1, -1)) {
    const found = lowerName.indexOf(part, at);
    if (found < 0 || found + part.length > lowerName.length - last.length) return false;
    at = found + part.length;
  }
  return true;
}

/** Whether a marker is for viewers. */
export function isChosen(
  marker: { name: string; colour: string; on: MarkerPlace; kind: MarkerKind },
  choice: ChapterChoice,
): boolean {
  if (marker.kind !== 'by choice') return marker.kind === 'chapter';
  if (!choice.colours.includes(marker.colour)) return false;
  if (choice.places.length > 0 && !choice.places.includes(marker.on)) return false;
  return nameFits(marker.name, choice.name);
}

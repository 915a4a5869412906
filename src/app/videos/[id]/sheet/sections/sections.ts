import type { Snag } from '@/core/drop';
import { PARTS, type SheetPlace } from '@/core/parts';

/** The sections of a Sheet, in the order of the work. */
export const SECTIONS = [
  'file',
  'chapters',
  'words',
  'markers',
  'picture',
  'captions',
  'declarations',
  'history',
] as const;
export type SectionId = (typeof SECTIONS)[number];

/** What each is called. */
export const SECTION_NAMES: Record<SectionId, string> = {
  file: 'The file',
  chapters: 'Chapters',
  words: 'Words',
  markers: 'Markers',
  picture: 'Picture',
  captions: 'Captions',
  declarations: 'Declarations',
  history: 'History',
};

/** The section in which a place is. */
export function sectionOf(place: SheetPlace): SectionId {
  if (place === 'cut') return 'file';
  if (place === 'chapters' || place === 'markers' || place === 'picture' || place === 'captions') return place;
  return place.startsWith('declared-') ? 'declarations' : 'words';
}

/** The id of a section on the page. */
export const sectionAnchor = (id: SectionId) => `section-${id}`;

/** The place on the Sheet at which a snag is mended; undefined where it is mended at the site, or where it stands. */
export function snagPlace({ kind, parts }: Snag): SheetPlace | undefined {
  if (kind === 'file' || kind === 'processing' || kind === 'rights') return 'cut';
  if (kind === 'review') return 'summary';
  const [part] = parts ?? [];
  return kind === 'difference' && part ? PARTS[part].place : undefined;
}
